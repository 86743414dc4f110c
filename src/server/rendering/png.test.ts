import { fc, test as prop } from '@fast-check/vitest';
import sharp from 'sharp';
import { expect } from 'vitest';
import { asPicture } from '@/core/watermark/palette';
import { palettePng, rowsOf } from '@/server/rendering/png';

const part = fc.integer({ min: 0, max: 255 });
const colour = fc.record({ red: part, green: part, blue: part });
const side = fc.integer({ min: 1, max: 70 });

prop.prop([side, side, fc.array(colour, { minLength: 1, maxLength: 256 }), fc.nat(1_000)], {
  numRuns: 60,
})(
  'a picture by palette is read as it is by another program',
  async (width, height, colours, seed) => {
    const indexes = Uint8Array.from(
      { length: width * height },
      (_each, at) => ((at * 31 + seed) >> 2) % colours.length,
    );
    const picture = { width, height, indexes, colours };
    const { data, info } = await sharp(palettePng(picture, rowsOf(picture, indexes)))
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect([info.width, info.height]).toEqual([width, height]);
    expect(Buffer.compare(data, asPicture(picture).rgba)).toBe(0);
  },
);
