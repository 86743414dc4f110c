import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import { withBanners } from '@/core/watermark/band';
import { burn, makeStamp, pageStamp, type Picture } from '@/core/watermark/burn';
import {
  DEFAULT_WATERMARK,
  MARK_COLOURS,
  MARK_LIMITS,
  newLayer,
  type MarkLayer,
  type Watermark,
} from '@/core/watermark/layers';
import { layOut, shapeLayers, wholePage } from '@/core/watermark/layout';
import { ownScriptsOnly } from '@/core/watermark/shape';

function sheet(width: number, height: number, grey: number): Picture {
  const rgba = new Uint8Array(width * height * 4).fill(grey);
  for (let i = 3; i < rgba.length; i += 4) rgba[i] = 255;
  return { width, height, rgba };
}

const shaped = (watermark: Watermark) => shapeLayers(watermark, ownScriptsOnly);
const tiled = (line: string, change: Partial<MarkLayer> = {}): MarkLayer => ({
  ...newLayer('tiled', line),
  ...change,
});

const changed = (picture: Picture, grey: number): number =>
  picture.rgba.filter((value, i) => i % 4 === 0 && value !== grey).length;

/** Brightness of each pixel, 0 to 1, linear as the eye adapts (WCAG 2.2, relative luminance). */
function luminance({ rgba }: Picture, at: number): number {
  const [red = 0, green = 0, blue = 0] = [0, 1, 2].map((i) => {
    const share = (rgba[at + i] ?? 0) / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

function contrast(one: number, other: number): number {
  return (Math.max(one, other) + 0.05) / (Math.min(one, other) + 0.05);
}

/** The strongest contrast of any marked pixel with the ground around it. */
function standsOut(page: Picture): number {
  const ground = luminance(page, 0);
  let most = 1;
  for (let at = 0; at < page.rgba.length; at += 4)
    most = Math.max(most, contrast(ground, luminance(page, at)));
  return most;
}

describe('burning', () => {
  test.each([
    ['a white page', 255],
    ['a black page', 0],
    ['a grey page', 128],
  ])('marks %s', async (_name, grey) => {
    const page = sheet(600, 800, grey);
    burn(page, pageStamp(await shaped([tiled('mira@brackwater.example')]), 600, 800));
    const share = changed(page, grey) / (600 * 800);
    expect(share).toBeGreaterThan(0.02);
    expect(share).toBeLessThan(0.2);
  });

  test.each([1, 2, 3])(
    'leaves no sixth of a page without a mark, at density %i',
    async (density) => {
      const page = sheet(1200, 1700, 255);
      const layers = await shaped([tiled('mira@brackwater.example · 25 Nov 2026', { density })]);
      burn(page, pageStamp(layers, 1200, 1700));
      for (let row = 0; row < 3; row++) {
        for (let column = 0; column < 2; column++) {
          let marked = 0;
          for (let y = row * 566; y < (row + 1) * 566; y++)
            for (let x = column * 600; x < (column + 1) * 600; x++)
              if (page.rgba[(y * 1200 + x) * 4] !== 255) marked++;
          expect(marked).toBeGreaterThan(1000);
        }
      }
    },
  );

  test('an empty text marks nothing', async () => {
    const page = sheet(100, 100, 255);
    burn(page, pageStamp(await shaped([tiled('  '), tiled('{copy}')]), 100, 100));
    expect(changed(page, 255)).toBe(0);
  });

  // Whatever somebody sets: it can be made out, and letters beneath it stay readable.
  const { min, max } = MARK_LIMITS.strength;
  const GROUNDS = [0, 30, 70, 100, 122, 123, 128, 160, 200, 235, 255];
  test.each(
    MARK_COLOURS.flatMap((colour) =>
      [min, (min + max) / 2, max].flatMap((strength) =>
        GROUNDS.map((grey) => [colour, strength, grey] as const),
      ),
    ),
  )('%s of strength %i is seen on grey %i, and hides no text', async (colour, strength, grey) => {
    const page = sheet(160, 60, grey);
    burn(page, pageStamp(await shaped([tiled('MIRA', { colour, strength })]), 160, 60));
    expect(standsOut(page)).toBeGreaterThan(1.1);
    // Letters on a page are as far from their ground as black from white or the other way about.
    const letters = sheet(160, 60, grey < 128 ? 255 : 0);
    burn(letters, pageStamp(await shaped([tiled('MIRA', { colour, strength })]), 160, 60));
    const isClear = grey < 40 || grey > 215;
    for (let at = 0; isClear && at < page.rgba.length; at += 4)
      expect(contrast(luminance(page, at), luminance(letters, at))).toBeGreaterThan(3);
  });
});

describe('a part of a page that is looked at in detail', () => {
  const layers: Watermark = [
    tiled('mira@brackwater.example · 25 Nov 2026'),
    newLayer('header', 'Tender'),
    newLayer('corner', 'Hull 412 · for bidders'),
  ];

  test('bears what the whole page bears there', async () => {
    const ready = await shaped(layers);
    const [width, height] = [1400, 1000];
    const whole = sheet(width, height, 255);
    burn(whole, pageStamp(ready, width, height));
    for (const crop of [
      { left: 0, top: 0, width: 700, height: 400 },
      { left: 700, top: 400, width: 700, height: 600 },
      { left: 333, top: 217, width: 100, height: 100 },
    ]) {
      const part = sheet(crop.width, crop.height, 255);
      burn(part, makeStamp(ready, { width, height, crop }));
      let other = 0;
      for (let row = 0; row < crop.height; row++) {
        const from = ((crop.top + row) * width + crop.left) * 4;
        const there = whole.rgba.subarray(from, from + crop.width * 4);
        const here = part.rgba.subarray(row * crop.width * 4, (row + 1) * crop.width * 4);
        if (Buffer.compare(here, there) !== 0) other++;
      }
      expect(other).toBe(0);
    }
  });

  prop.prop([fc.integer({ min: 0, max: 17 }), fc.integer({ min: 0, max: 12 })], { numRuns: 12 })(
    'is never without a mark, however far in one goes',
    async (column, row) => {
      const crop = { left: column * 1024, top: row * 1024, width: 1024, height: 1024 };
      const part = sheet(1024, 1024, 255);
      const ready = await shaped([tiled('mira@brackwater.example · 25 Nov 2026')]);
      burn(part, makeStamp(ready, { width: 19_000, height: 13_500, crop }));
      expect(changed(part, 255)).toBeGreaterThan(5_000);
    },
  );
});

describe('lines at the edges', () => {
  const bounds = async (watermark: Watermark) => {
    const page = sheet(600, 800, 255);
    burn(page, pageStamp(await shaped(watermark), 600, 800));
    const rows = Array.from({ length: 800 }, (_each, y) => y).filter((y) =>
      page.rgba.subarray(y * 2400, (y + 1) * 2400).some((value) => value !== 255),
    );
    return { first: rows[0] ?? -1, last: rows.at(-1) ?? -1 };
  };

  test('stand at the top and at the bottom', async () => {
    expect((await bounds([newLayer('header', 'Tender')])).last).toBeLessThan(60);
    expect((await bounds([newLayer('footer', 'Tender')])).first).toBeGreaterThan(740);
  });

  test('of several layers stand below one another', async () => {
    const { placements } = layOut(
      await shaped([newLayer('header', 'One'), newLayer('header', 'Two')]),
      wholePage(600, 800),
    );
    const [one = 0, two = 0] = placements.map(({ points }) => points[0]?.[1] ?? 0);
    expect(two - one).toBeGreaterThan(10);
  });

  test('that are too long are broken between their parts, and set smaller where one alone is too long', async () => {
    const long = Array.from({ length: 8 }, () => 'Tern & Quill Naval Architects').join(' · ');
    const { placements } = layOut(await shaped([newLayer('header', long)]), wholePage(600, 800));
    expect(placements.length).toBeGreaterThan(1);
    const one = layOut(await shaped([newLayer('header', 'W'.repeat(120))]), wholePage(600, 800));
    expect(one.placements).toHaveLength(1);
    expect(one.placements[0]?.points[0]?.[0]).toBeGreaterThanOrEqual(10);
  });

  test.each(['top-left', 'top-right', 'bottom-left', 'bottom-right'] as const)(
    'a stamp lies whole in its corner: %s',
    async (corner) => {
      const layer = { ...newLayer('corner', 'For the yards that bid · H412-001'), corner };
      const { frames } = layOut(await shaped([layer]), wholePage(600, 800));
      const box = frames[0]?.box ?? { left: -1, top: -1, width: 0, height: 0 };
      expect(box.left + box.width / 2 < 300).toBe(corner.endsWith('left'));
      expect(box.top + box.height / 2 < 400).toBe(corner.startsWith('top'));
      expect(box.left).toBeGreaterThanOrEqual(0);
      expect(box.left + box.width).toBeLessThanOrEqual(600);
      expect(box.top + box.height).toBeLessThanOrEqual(800);
    },
  );
});

describe('a strip beside a printed page', () => {
  test('covers nothing of it, and the sheet keeps its shape', async () => {
    const page = sheet(600, 800, 40);
    const paper = withBanners(page, await shaped([newLayer('banner', 'Copy 3')]));
    expect(paper.width / paper.height).toBeCloseTo(600 / 800, 2);
    expect(paper.rgba.filter((value, i) => i % 4 === 0 && value === 40)).toHaveLength(600 * 800);
  });

  test('without one the page is as it was', async () => {
    const page = sheet(60, 80, 40);
    expect(withBanners(page, await shaped([newLayer('header', 'x')]))).toBe(page);
  });

  test('is not on pages as they are read', async () => {
    const read = layOut(await shaped(DEFAULT_WATERMARK.slice(1)), wholePage(600, 800));
    expect(read.placements).toEqual([]);
  });
});
