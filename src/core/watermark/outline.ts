import font from '@/core/watermark/outlines.json' with { type: 'json' };

/** A closed polygon as x, y, x, y, …; y grows downwards, the baseline is y = 0. */
export type Contour = readonly number[];
export type TextOutline = { readonly contours: readonly Contour[]; readonly width: number };

type Outlines = Readonly<Record<string, readonly [number, string] | undefined>>;
const outlines = font.outlines as unknown as Outlines;

/** Stands for a character that the shipped font does not have: better a visible gap than a silent one. */
const MISSING: readonly [number, string] = [560, 'M60 0L500 0L500 660L60 660ZM120 60L120 600L440 600L440 60Z'];

/** Straight pieces a curve is cut into; enough for text below 60 px. */
const STEPS = 5;

function glyphOf(character: string): readonly [number, string] {
  // An accented letter the font lacks is drawn without its accent.
  return outlines[character] ?? outlines[character.normalize('NFD').charAt(0)] ?? MISSING;
}

type Step = { readonly command: string; readonly numbers: readonly number[] };

/** Paths already taken apart: a watermark has the same few letters over and over. */
const parsed = new Map<string, readonly Step[]>();

function stepsOf(path: string): readonly Step[] {
  const found = parsed.get(path);
  if (found !== undefined) return found;
  const steps = Array.from(path.matchAll(/([MLQCZ])([^MLQCZ]*)/g), ([, command = '', args = '']) => ({ command, numbers: args.split(' ').map(Number) }));
  parsed.set(path, steps);
  return steps;
}

function flatten(path: string, place: (x: number, y: number) => [number, number], into: number[][]): void {
  let contour: number[] = [];
  let x = 0;
  let y = 0;
  for (const { command, numbers } of stepsOf(path)) {
    const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = numbers;
    if (command === 'Z') {
      if (contour.length > 4) into.push(contour);
      contour = [];
      continue;
    }
    if (command === 'Q') {
      for (let i = 1; i <= STEPS; i++) {
        const t = i / STEPS;
        const s = 1 - t;
        contour.push(...place(s * s * x + 2 * s * t * a + t * t * c, s * s * y + 2 * s * t * b + t * t * d));
      }
    } else if (command === 'C') {
      for (let i = 1; i <= STEPS; i++) {
        const t = i / STEPS;
        const s = 1 - t;
        contour.push(...place(s ** 3 * x + 3 * s * s * t * a + 3 * s * t * t * c + t ** 3 * e, s ** 3 * y + 3 * s * s * t * b + 3 * s * t * t * d + t ** 3 * f));
      }
    } else {
      contour.push(...place(a, b));
    }
    [x, y] = command === 'Q' ? [c, d] : command === 'C' ? [e, f] : [a, b];
  }
}

/** One line of text as polygons, `size` px high per em, its baseline turned by `angle` radians around the start. */
export function outlineOf(text: string, size: number, angle = 0): TextOutline {
  const scale = size / font.unitsPerEm;
  const cos = Math.cos(angle);
  const sin = Math.sin(angle);
  const contours: number[][] = [];
  let pen = 0;
  for (const character of text) {
    const [advance, path] = glyphOf(character);
    const start = pen;
    flatten(path, (x, y) => {
      const along = (start + x) * scale;
      const up = -y * scale;
      return [along * cos - up * sin, along * sin + up * cos];
    }, contours);
    pen += advance;
  }
  return { contours, width: pen * scale };
}
