import font from '@/core/watermark/outlines.json' with { type: 'json' };

/** A closed polygon as x, y, x, y, …; y grows downwards, the baseline is y = 0. */
export type Contour = readonly number[];
export type TextOutline = { readonly contours: readonly Contour[]; readonly width: number };

type Outlines = Readonly<Record<string, readonly [number, string] | undefined>>;
const outlines = font.outlines as unknown as Outlines;

/** Stands for a character that the shipped font does not have: better a visible gap than a silent one. */
const MISSING: readonly [number, string] = [
  560,
  'M60 0L500 0L500 660L60 660ZM120 60L120 600L440 600L440 60Z',
];

/** Straight pieces a curve is cut into; enough for text below 60 px. */
const STEPS = 3;

function glyphOf(character: string): readonly [number, string] {
  // An accented letter the font lacks is drawn without its accent.
  return outlines[character] ?? outlines[character.normalize('NFD').charAt(0)] ?? MISSING;
}

/** One closed contour of a glyph, curves cut into straight pieces, in font units; y grows upwards. */
type Glyph = readonly Contour[];

/** Glyphs already taken apart: a watermark has the same few letters over and over. */
const flattened = new Map<string, Glyph>();

function glyphContours(path: string): Glyph {
  const found = flattened.get(path);
  if (found !== undefined) return found;
  const contours = flatten(path);
  flattened.set(path, contours);
  return contours;
}

function flatten(path: string): Glyph {
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
    const points = args.split(' ').map(Number);
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
function place(contour: Contour, pen: number, scale: number, cos: number, sin: number): Contour {
  const placed = new Array<number>(contour.length);
  for (let i = 0; i < contour.length; i += 2) {
    const along = (pen + (contour[i] ?? 0)) * scale;
    const down = -(contour[i + 1] ?? 0) * scale;
    placed[i] = along * cos - down * sin;
    placed[i + 1] = along * sin + down * cos;
  }
  return placed;
}

/** One line of text as polygons, `size` px high per em, its baseline turned by `angle` radians around the start. */
export function outlineOf(text: string, size: number, angle = 0): TextOutline {
  const scale = size / font.unitsPerEm;
  const cos = Math.cos(angle);
  const sin = Math.sin(angle);
  const contours: Contour[] = [];
  let pen = 0;
  for (const character of text) {
    const [advance, path] = glyphOf(character);
    for (const contour of glyphContours(path)) contours.push(place(contour, pen, scale, cos, sin));
    pen += advance;
  }
  return { contours, width: pen * scale };
}
