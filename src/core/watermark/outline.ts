import type { Glyph } from '@/core/watermark/shape';

/** A closed polygon as x, y, x, y, …; y grows downwards, the baseline is y = 0. */
export type Contour = readonly number[];

/** Straight pieces a curve is cut into; enough for text below 60 px. */
const STEPS = 3;
const EM = 1000;

/** Glyphs already taken apart: a watermark has the same few letters over and over. */
const flattened = new Map<string, readonly Contour[]>();
const MOST_FLATTENED = 2_000;

function glyphContours(path: string): readonly Contour[] {
  const found = flattened.get(path);
  if (found !== undefined) return found;
  const contours = flatten(path);
  if (flattened.size >= MOST_FLATTENED) flattened.clear();
  flattened.set(path, contours);
  return contours;
}

function flatten(path: string): Contour[] {
  const contours: number[][] = [];
  let contour: number[] = [];
  let x = 0;
  let y = 0;
  for (const [, command = '', args = ''] of path.matchAll(/([MLQCZ])([^MLQCZ]*)/g)) {
    if (command === 'Z') {
      if (contour.length > 4) contours.push(contour);
      contour = [];
      continue;
    }
    const points = args.trim().split(/[ ,]+/).map(Number);
    if (points.length === 2) contour.push(...points);
    else contour.push(...curve([x, y, ...points]));
    [x = 0, y = 0] = points.slice(-2);
  }
  return contours;
}

/** A curve by its points, the first of which is where the pen is, in straight pieces (de Casteljau). */
function curve(points: readonly number[]): number[] {
  return Array.from({ length: STEPS }, (_each, i) => pointOn(points, (i + 1) / STEPS)).flat();
}

function pointOn(points: readonly number[], t: number): readonly number[] {
  if (points.length === 2) return points;
  const between: number[] = [];
  for (let i = 0; i + 2 < points.length; i++)
    between.push((1 - t) * (points[i] ?? 0) + t * (points[i + 2] ?? 0));
  return pointOn(between, t);
}

/** A glyph's contour where it stands in the line, in px. */
function place(
  contour: Contour,
  origin: readonly [number, number],
  scale: number,
  cos: number,
  sin: number,
): Contour {
  const placed = new Array<number>(contour.length);
  for (let i = 0; i < contour.length; i += 2) {
    const along = (origin[0] + (contour[i] ?? 0)) * scale;
    const down = -(origin[1] + (contour[i + 1] ?? 0)) * scale;
    placed[i] = along * cos - down * sin;
    placed[i + 1] = along * sin + down * cos;
  }
  return placed;
}

/** How long a line is at `size` px per em, in px. */
export function widthOf(glyphs: readonly Glyph[], size: number): number {
  return (glyphs.reduce((sum, { advance }) => sum + advance, 0) * size) / EM;
}

/** One line of text as polygons, `size` px high per em, its baseline turned by `angle` radians around the start. */
export function outlineOf(glyphs: readonly Glyph[], size: number, angle = 0): readonly Contour[] {
  const scale = size / EM;
  const cos = Math.cos(angle);
  const sin = Math.sin(angle);
  const contours: Contour[] = [];
  let pen = 0;
  for (const { advance, x, y, path } of glyphs) {
    for (const contour of glyphContours(path))
      contours.push(place(contour, [pen + x, y], scale, cos, sin));
    pen += advance;
  }
  return contours;
}
