/** Where a line of text `textWidth` px long is repeated over a page, and how. */
export type Layout = {
  /** Height of the text's em in px. */
  readonly size: number;
  /** Angle of the baseline in radians; negative rises to the right. */
  readonly angle: number;
  /** Starting points of each repetition, whole px. */
  readonly points: readonly (readonly [number, number])[];
};

/** Rising to the right, steep enough not to be cropped away with a line of text. */
export const ANGLE = (-24 * Math.PI) / 180;

/** Em size of the watermark on a page of this size, in px: legible at reading size, zoom-proof as it scales along. */
export function textSize(width: number, height: number): number {
  return Math.max(9, Math.min(width, height) * 0.022);
}

/**
 * Lines in rows across the whole page, every second row shifted, so that no crop of a sixth of the
 * page is without one.
 */
export function layOut(width: number, height: number, textWidth: number): Layout {
  const size = textSize(width, height);
  const along = textWidth + size * 2.5;
  const across = size * 6.2;
  const cos = Math.cos(ANGLE);
  const sin = Math.sin(ANGLE);
  const reach = Math.hypot(width, height);
  const points: [number, number][] = [];
  for (let row = -Math.ceil(reach / across); row <= Math.ceil(reach / across); row++) {
    for (let column = -Math.ceil(reach / along) - 1; column <= Math.ceil(reach / along); column++) {
      const u = (column + (row % 2 === 0 ? 0 : 0.5)) * along;
      const v = row * across;
      const x = Math.round(width / 2 + u * cos - v * sin);
      const y = Math.round(height / 2 + u * sin + v * cos);
      const endX = x + textWidth * cos;
      const endY = y + textWidth * sin;
      if (endX > 0 && x < width && Math.max(y, endY) > 0 && Math.min(y, endY) - size < height)
        points.push([x, y]);
    }
  }
  return { size, angle: ANGLE, points };
}
