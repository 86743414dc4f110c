import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import { rasterise } from '@/core/watermark/raster';

function total(contour: readonly number[]): number {
  return rasterise([contour]).alphas.reduce((sum, alpha) => sum + alpha, 0) / 255;
}

describe('rasterise', () => {
  test.each([
    ['a square on whole pixels', [2, 2, 12, 2, 12, 12, 2, 12], 100],
    ['a square on half pixels', [2.5, 2.5, 12.5, 2.5, 12.5, 12.5, 2.5, 12.5], 100],
    ['a triangle', [0, 0, 20, 0, 0, 20], 200],
    ['a triangle with an edge as good as level', [0, 0, 20, 5e-324, 10, 10], 100],
    ['a flat sliver', [0, 0, 40, 0, 40, 0.5, 0, 0.5], 20],
  ])('covers as much as the area of %s', (_name, contour, area) => {
    expect(total(contour)).toBeGreaterThan(area - 1.5);
    expect(total(contour)).toBeLessThan(area + 1.5);
  });

  test('leaves a hole where the inner contour turns the other way', () => {
    const { alphas } = rasterise([
      [0, 0, 20, 0, 20, 20, 0, 20],
      [5, 5, 5, 15, 15, 15, 15, 5],
    ]);
    expect(alphas.reduce((sum, alpha) => sum + alpha, 0) / 255).toBeCloseTo(300, 0);
  });

  prop.prop([
    fc.array(
      fc.tuple(
        fc.double({ min: -30, max: 30, noNaN: true }),
        fc.double({ min: -30, max: 30, noNaN: true }),
      ),
      { minLength: 3, maxLength: 3 },
    ),
  ])('covers any triangle by its area', (points) => {
    const [[ax, ay], [bx, by], [cx, cy]] = points as [
      [number, number],
      [number, number],
      [number, number],
    ];
    const area = Math.abs((bx - ax) * (cy - ay) - (cx - ax) * (by - ay)) / 2;
    // Each pixel's coverage is rounded to 1/255, and faint ones to nothing.
    expect(Math.abs(total(points.flat()) - area)).toBeLessThan(0.5 + area * 0.02);
  });
});
