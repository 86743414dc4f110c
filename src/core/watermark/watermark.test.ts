import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import { burn, makeStamp, type Picture } from '@/core/watermark/burn';
import { layOut } from '@/core/watermark/layout';
import { outlineOf } from '@/core/watermark/outline';
import { rasterise } from '@/core/watermark/raster';
import { fillTokens, unknownTokens } from '@/core/watermark/tokens';

const values = {
  name: 'Mira',
  address: 'mira@brackwater.example',
  organisation: 'Brackwater Yard',
  date: '25 Nov',
  time: '13:41',
  network: '203.0.113.24',
  reference: 'D-1',
};

test('tokens are filled in, unknown ones stay and are named', () => {
  expect(fillTokens('{name} of {organisation}, {moon}', values)).toBe(
    'Mira of Brackwater Yard, {moon}',
  );
  expect(unknownTokens('{name} {moon} {sun}')).toEqual(['moon', 'sun']);
});

test('what a token is filled with is not filled in again', () => {
  expect(fillTokens('{name}', { ...values, name: '{network}' })).toBe('{network}');
});

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

test('a character the font lacks is drawn, not dropped', () => {
  expect(outlineOf('水', 20).contours.length).toBeGreaterThan(0);
  expect(outlineOf('Å', 20).width).toBeGreaterThan(0);
});

function sheet(width: number, height: number, grey: number): Picture {
  const rgba = new Uint8Array(width * height * 4).fill(grey);
  for (let i = 3; i < rgba.length; i += 4) rgba[i] = 255;
  return { width, height, rgba };
}

const changed = (picture: Picture, grey: number): number =>
  picture.rgba.filter((value, i) => i % 4 === 0 && value !== grey).length;

describe('burning', () => {
  test.each([
    ['a white page', 255],
    ['a black page', 0],
    ['a grey page', 128],
  ])('marks %s', (_name, grey) => {
    const page = sheet(600, 800, grey);
    burn(page, makeStamp('mira@brackwater.example', 600, 800));
    const share = changed(page, grey) / (600 * 800);
    expect(share).toBeGreaterThan(0.02);
    expect(share).toBeLessThan(0.2);
  });

  test('leaves no sixth of a page without a mark', () => {
    const page = sheet(1200, 1700, 255);
    burn(page, makeStamp('mira@brackwater.example · 25 Nov 2026', 1200, 1700));
    for (let row = 0; row < 3; row++) {
      for (let column = 0; column < 2; column++) {
        let marked = 0;
        for (let y = row * 566; y < (row + 1) * 566; y++)
          for (let x = column * 600; x < (column + 1) * 600; x++)
            if (page.rgba[(y * 1200 + x) * 4] !== 255) marked++;
        expect(marked).toBeGreaterThan(1000);
      }
    }
  });

  test('an empty text marks nothing', () => {
    const page = sheet(100, 100, 255);
    burn(page, makeStamp('  ', 100, 100));
    expect(changed(page, 255)).toBe(0);
  });

  test('the same text is laid out the same on every page of a size', () => {
    expect(layOut(600, 800, 300)).toEqual(layOut(600, 800, 300));
  });
});
