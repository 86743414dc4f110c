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
  if (y0 === y1) return;
  const down = y0 < y1;
  const direction = down ? 1 : -1;
  const topX = down ? x0 : x1,
    topY = down ? y0 : y1,
    bottomX = down ? x1 : x0,
    bottomY = down ? y1 : y0;
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
    const base = row * width + first;
    if (first < (touched.from[row] ?? 0)) touched.from[row] = first;
    if (last > (touched.to[row] ?? 0)) touched.to[row] = last;
    if (last <= first + 1) {
      const middle = (x + nextX) / 2 - first;
      area[base] = (area[base] ?? 0) + signed * (1 - middle);
      area[base + 1] = (area[base + 1] ?? 0) + signed * middle;
    } else {
      // The pixels in between each take the same slope of area; the first and last take triangles.
      const run = 1 / (right - left);
      const offset = left - first;
      const startArea = 0.5 * run * (1 - offset) * (1 - offset);
      const inLast = right - last + 1;
      const endArea = 0.5 * run * inLast * inLast;
      area[base] = (area[base] ?? 0) + signed * startArea;
      if (last === first + 2) {
        area[base + 1] = (area[base + 1] ?? 0) + signed * (1 - startArea - endArea);
      } else {
        const second = run * (1.5 - offset);
        area[base + 1] = (area[base + 1] ?? 0) + signed * (second - startArea);
        for (let i = 2; i < last - first - 1; i++)
          area[base + i] = (area[base + i] ?? 0) + signed * run;
        const before = second + (last - first - 3) * run;
        area[base + last - first - 1] =
          (area[base + last - first - 1] ?? 0) + signed * (1 - before - endArea);
      }
      area[base + last - first] = (area[base + last - first] ?? 0) + signed * endArea;
    }
    x = nextX;
  }
}

/** Coverage below this changes no pixel by a whole step once it is burned in. */
const FAINTEST = 1 / 255;

/** Leftmost and rightmost column touched in each row: a slanted line leaves most of its box empty. */
type Touched = { readonly from: Int32Array; readonly to: Int32Array };

/** The pixels that these polygons cover (non-zero winding), anti-aliased. */
export function rasterise(contours: readonly Contour[]): Coverage {
  let minX = Infinity,
    minY = Infinity,
    maxX = -Infinity,
    maxY = -Infinity;
  for (const contour of contours) {
    for (let i = 0; i < contour.length; i += 2) {
      const x = contour[i] ?? 0;
      const y = contour[i + 1] ?? 0;
      if (x < minX) minX = x;
      if (x > maxX) maxX = x;
      if (y < minY) minY = y;
      if (y > maxY) maxY = y;
    }
  }
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
