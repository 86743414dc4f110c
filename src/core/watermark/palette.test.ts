import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import { burn, pageStamp, type Picture } from '@/core/watermark/burn';
import { burnPalette } from '@/core/watermark/burn-palette';
import { MARK_COLOURS, MARK_LIMITS, newLayer, type Watermark } from '@/core/watermark/layers';
import { shapeLayers } from '@/core/watermark/layout';
import { asPicture, fewColours } from '@/core/watermark/palette';
import { ownScriptsOnly } from '@/core/watermark/shape';

const [WIDTH, HEIGHT] = [240, 120];

/** A page on which each row of pixels goes through these colours, in runs of different length. */
function page(colours: readonly (readonly [number, number, number])[]): Picture {
  const rgba = new Uint8Array(WIDTH * HEIGHT * 4).fill(255);
  for (let at = 0; at < WIDTH * HEIGHT; at++) {
    const colour = colours[Math.floor((at * (1 + (at % 3))) / 7) % colours.length];
    if (colour !== undefined) rgba.set(colour, at * 4);
  }
  return { width: WIDTH, height: HEIGHT, rgba };
}

const greys = (count: number) =>
  Array.from({ length: count }, (_each, i) => {
    const grey = Math.round((255 * i) / Math.max(1, count - 1));
    return [grey, grey, grey] as const;
  });

function furthest(one: Picture, other: Picture): number {
  return one.rgba.reduce(
    (most, value, at) => Math.max(most, Math.abs(value - (other.rgba[at] ?? 0))),
    0,
  );
}

function stampOf(watermark: Watermark) {
  return shapeLayers(watermark, ownScriptsOnly).then((layers) => pageStamp(layers, WIDTH, HEIGHT));
}

const part = fc.integer({ min: 0, max: 255 });

describe('a page of few colours', () => {
  prop.prop([fc.array(fc.tuple(part, part, part), { minLength: 1, maxLength: 64 })])(
    'of up to 64 is the same by them',
    (colours) => {
      const drawn = page(colours);
      const few = fewColours(drawn);
      expect(few === null ? 255 : furthest(asPicture(few), drawn)).toBe(0);
    },
  );

  test('in all greys is as good as the same, and plain black and white stay what they are', () => {
    const drawn = page(greys(256));
    const few = fewColours(drawn);
    expect(few?.colours.length).toBeLessThanOrEqual(64);
    expect(few === null ? 255 : furthest(asPicture(few), drawn)).toBeLessThanOrEqual(9);
  });

  test('of many has none that stand for them', () => {
    const cube = Array.from(
      { length: 512 },
      (_each, i) => [(i & 7) * 36, ((i >> 3) & 7) * 36, (i >> 6) * 36] as const,
    );
    expect(fewColours(page(cube))).toBeNull();
  });

  // What is burned by the palette is what is burned pixel by pixel, but for the edges of letters.
  prop.prop(
    [
      fc.constantFrom(...MARK_COLOURS),
      fc.integer(MARK_LIMITS.strength),
      fc.integer({ min: 1, max: 40 }),
    ],
    { numRuns: 40 },
  )('bears the same mark as when it is burned pixel by pixel', async (colour, strength, count) => {
    const stamp = await stampOf([
      { ...newLayer('tiled', 'mira@brackwater.example'), colour, strength },
    ]);
    const drawn = page(greys(count));
    const few = fewColours(drawn);
    const marked = few === null ? null : burnPalette(few, stamp);
    burn(drawn, stamp);
    expect(marked).not.toBeNull();
    if (marked === null) return;
    expect(marked.colours.length).toBeLessThanOrEqual(256);
    // Three steps at the fewest: a pixel is half a step off at the most, beside what its ground is.
    expect(furthest(asPicture(marked), drawn)).toBeLessThanOrEqual(9 + (0.6 * 255) / 4);
  });

  test('bears several inks, the upper one where they meet, as pixel by pixel', async () => {
    const stamp = await stampOf([
      { ...newLayer('tiled', 'Tender · for bidders'), colour: 'ink', strength: 40 },
      { ...newLayer('corner', 'Hull 412'), colour: 'magenta', strength: 50 },
    ]);
    const drawn = page([[255, 255, 255]]);
    const few = fewColours(drawn);
    const marked = few === null ? null : burnPalette(few, stamp);
    const reddish = (picture: Picture) => {
      let found = 0;
      for (let at = 0; at < picture.rgba.length; at += 4)
        if ((picture.rgba[at] ?? 0) - (picture.rgba[at + 1] ?? 0) > 30) found++;
      return found;
    };
    burn(drawn, stamp);
    expect(marked).not.toBeNull();
    if (marked === null) return;
    const [here, there] = [reddish(asPicture(marked)), reddish(drawn)];
    expect(there).toBeGreaterThan(100);
    expect(Math.abs(here - there) / there).toBeLessThan(0.2);
  });

  test('that has no room for its inks is left as it is', async () => {
    const stamp = await stampOf([
      { ...newLayer('tiled', 'one'), colour: 'ink' },
      { ...newLayer('header', 'two'), colour: 'magenta' },
      { ...newLayer('footer', 'three'), colour: 'grey' },
    ]);
    const few = fewColours(page(greys(60)));
    expect(few).not.toBeNull();
    if (few === null) return;
    const before = few.indexes.slice();
    expect(burnPalette(few, stamp)).toBeNull();
    expect(few.indexes).toEqual(before);
  });
});
