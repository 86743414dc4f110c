import type { Contour } from '@/core/watermark/outline';

/**
 * What a shape covers, kept sparsely: pixel `i` lies at (`xs[i]`, `ys[i]`) from the shape's origin
 * and is covered by `alphas[i]` / 255.
 */
export type Coverage = {
  readonly xs: Int16Array;
  readonly ys: Int16Array;
  readonly alphas: Uint8Array;
};

/**
 * Adds one edge to a signed-area accumulation buffer: for each pixel row the edge crosses, how much
 * of each pixel lies to its right. Summed along a row this gives exact anti-aliased coverage.
 */
function addEdge(
  area: Float32Array,
  width: number,
  touched: Touched,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): void {
  if (y0 > y1) addDown(area, width, touched, -1, x1, y1, x0, y0);
  if (y0 < y1) addDown(area, width, touched, 1, x0, y0, x1, y1);
}

/** Adds an edge from its upper to its lower end, whichever way the polygon runs along it. */
function addDown(
  area: Float32Array,
  width: number,
  touched: Touched,
  direction: 1 | -1,
  topX: number,
  topY: number,
  bottomX: number,
  bottomY: number,
): void {
  const slope = (bottomX - topX) / (bottomY - topY);
  const leftmost = Math.min(topX, bottomX),
    rightmost = Math.max(topX, bottomX);
  let x = topX;
  for (let row = Math.floor(topY); row < bottomY; row++) {
    const height = Math.min(row + 1, bottomY) - Math.max(row, topY);
    // Held between the ends: the slope of a nearly level edge is beyond what a number can say.
    const nextX = Math.max(leftmost, Math.min(rightmost, x + slope * height));
    const signed = direction * height;
    const left = Math.min(x, nextX),
      right = Math.max(x, nextX);
    const first = Math.floor(left);
    const last = Math.ceil(right);
    if (first < (touched.from[row] ?? 0)) touched.from[row] = first;
    if (last > (touched.to[row] ?? 0)) touched.to[row] = last;
    const base = row * width + first;
    if (last <= first + 1) addWithinPixel(area, base, signed, (x + nextX) / 2 - first);
    else addAcross(area, base, signed, { first, last, left, right });
    x = nextX;
  }
}

function put(area: Float32Array, at: number, amount: number): void {
  area[at] = (area[at] ?? 0) + amount;
}

/** An edge that stays within one pixel of a row: what lies to its right there, and in all that follow. */
function addWithinPixel(area: Float32Array, base: number, signed: number, middle: number): void {
  put(area, base, signed * (1 - middle));
  put(area, base + 1, signed * middle);
}

type Run = {
  readonly first: number;
  readonly last: number;
  readonly left: number;
  readonly right: number;
};

/** An edge over several pixels of a row: those in between take the same, the first and last triangles. */
function addAcross(
  area: Float32Array,
  base: number,
  signed: number,
  { first, last, left, right }: Run,
): void {
  const run = 1 / (right - left);
  const offset = left - first;
  const inLast = right - last + 1;
  const startArea = 0.5 * run * (1 - offset) * (1 - offset);
  const endArea = 0.5 * run * inLast * inLast;
  const count = last - first;
  put(area, base, signed * startArea);
  if (count === 2) put(area, base + 1, signed * (1 - startArea - endArea));
  else {
    const second = run * (1.5 - offset);
    put(area, base + 1, signed * (second - startArea));
    for (let i = 2; i < count - 1; i++) put(area, base + i, signed * run);
    put(area, base + count - 1, signed * (1 - second - (count - 3) * run - endArea));
  }
  put(area, base + count, signed * endArea);
}

/** Coverage below this changes no pixel by a whole step once it is burned in. */
const FAINTEST = 1 / 255;

/** Leftmost and rightmost column touched in each row: a slanted line leaves most of its box empty. */
type Touched = { readonly from: Int32Array; readonly to: Int32Array };

function boundsOf(contours: readonly Contour[]) {
  const bounds = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
  for (const contour of contours) {
    for (let i = 0; i < contour.length; i += 2) {
      const x = contour[i] ?? 0;
      const y = contour[i + 1] ?? 0;
      bounds.minX = Math.min(bounds.minX, x);
      bounds.maxX = Math.max(bounds.maxX, x);
      bounds.minY = Math.min(bounds.minY, y);
      bounds.maxY = Math.max(bounds.maxY, y);
    }
  }
  return bounds;
}

/** The pixels that these polygons cover (non-zero winding), anti-aliased. */
export function rasterise(contours: readonly Contour[]): Coverage {
  const { minX, minY, maxX, maxY } = boundsOf(contours);
  if (minX > maxX)
    return { xs: new Int16Array(0), ys: new Int16Array(0), alphas: new Uint8Array(0) };
  const left = Math.floor(minX);
  const top = Math.floor(minY);
  const width = Math.ceil(maxX) - left + 3;
  const height = Math.ceil(maxY) - top + 1;
  const area = new Float32Array(width * height + 2);
  const touched = { from: new Int32Array(height).fill(width), to: new Int32Array(height) };
  for (const contour of contours) {
    let x0 = (contour.at(-2) ?? 0) - left;
    let y0 = (contour.at(-1) ?? 0) - top;
    for (let i = 0; i < contour.length; i += 2) {
      const x1 = (contour[i] ?? 0) - left;
      const y1 = (contour[i + 1] ?? 0) - top;
      addEdge(area, width, touched, x0, y0, x1, y1);
      x0 = x1;
      y0 = y1;
    }
  }
  return sparse(area, width, touched, left, top);
}

function sparse(
  area: Float32Array,
  width: number,
  { from, to }: Touched,
  left: number,
  top: number,
): Coverage {
  const xs: number[] = [],
    ys: number[] = [],
    alphas: number[] = [];
  for (let row = 0; row < from.length; row++) {
    let sum = 0;
    const last = to[row] ?? 0;
    for (let x = from[row] ?? 0; x <= last; x++) {
      sum += area[row * width + x] ?? 0;
      if (sum < FAINTEST && sum > -FAINTEST) continue;
      xs.push(left + x);
      ys.push(top + row);
      alphas.push(Math.round(Math.min(1, Math.abs(sum)) * 255));
    }
  }
  return { xs: Int16Array.from(xs), ys: Int16Array.from(ys), alphas: Uint8Array.from(alphas) };
}
