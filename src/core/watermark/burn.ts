import { layOut, textSize, ANGLE, type Layout } from '@/core/watermark/layout';
import { outlineOf } from '@/core/watermark/outline';
import { rasterise, type Coverage } from '@/core/watermark/raster';

/** A picture as red, green, blue, alpha bytes, row by row from the top. */
export type Picture = {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8Array;
};

/** How strongly the text covers what is beneath it, of 255. */
const STRENGTH = 52;
const SHARE = Math.round((STRENGTH * 65536) / 65025);
const INK = { red: 15, green: 43, blue: 60 } as const;
const PAPER = { red: 236, green: 240, blue: 240 } as const;

/** A line of text ready to be burned into any picture of this size. */
export type Stamp = {
  readonly width: number;
  readonly height: number;
  readonly coverage: Coverage;
  readonly points: Layout['points'];
};

/** Lays a line of text out for pictures of this size in px; the same stamp serves every page that has it. */
export function makeStamp(text: string, width: number, height: number): Stamp {
  const outline = outlineOf(text, textSize(width, height), ANGLE);
  return {
    width,
    height,
    coverage: rasterise(outline.contours),
    points: text.trim() === '' ? [] : layOut(width, height, outline.width).points,
  };
}

/**
 * Burns a stamp all over a picture, in place. Where the picture is light the text is ink, where it
 * is dark it is paper, so that no page hides it.
 */
export function burn(
  { width, height, rgba }: Picture,
  { coverage: { xs, ys, alphas }, points }: Stamp,
): void {
  for (const [originX, originY] of points) {
    for (let i = 0; i < xs.length; i++) {
      const x = originX + (xs[i] ?? 0);
      const y = originY + (ys[i] ?? 0);
      if (x < 0 || y < 0 || x >= width || y >= height) continue;
      // Whole numbers, a share of 2^16: no division stands in the innermost loop.
      mix(rgba, (y * width + x) * 4, (alphas[i] ?? 0) * SHARE);
    }
  }
}

/** Mixes ink or paper into one pixel, whichever stands out there. */
function mix(rgba: Picture['rgba'], at: number, share: number): void {
  const red = rgba[at] ?? 0;
  const green = rgba[at + 1] ?? 0;
  const blue = rgba[at + 2] ?? 0;
  const ink = red * 3 + green * 6 + blue > 1100 ? INK : PAPER;
  rgba[at] = red + (((ink.red - red) * share) >> 16);
  rgba[at + 1] = green + (((ink.green - green) * share) >> 16);
  rgba[at + 2] = blue + (((ink.blue - blue) * share) >> 16);
}
