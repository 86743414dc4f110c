import sharp from 'sharp';
import { expect, test } from 'vitest';
import { burn, type Stamp } from '@/core/watermark/burn';
import { burnPalette } from '@/core/watermark/burn-palette';
import { asPicture, fewColours } from '@/core/watermark/palette';
import { markedPicture } from '@/server/rendering/marked-picture';
import { rowsOf } from '@/server/rendering/png';
import type { Drawn } from '@/server/rendering/render-task';

const [WIDTH, HEIGHT] = [97, 61];
const LAYER = { colour: 'magenta', strength: 40 } as Stamp['inked'][number]['layer'];

/** A slanting stroke that also leaves the page on every side. */
function stroke(left: number): Stamp {
  const points = Array.from({ length: 400 }, (_, i) => i);
  return {
    crop: { left, top: 0, width: WIDTH, height: HEIGHT },
    inked: [
      {
        layer: LAYER,
        coverage: {
          xs: Int16Array.from(points, (i) => i - 150),
          ys: Int16Array.from(points, (i) => (i % 90) - 10),
          alphas: Uint8Array.from(points, (i) => 60 + (i % 195)),
        },
        points: [[left, 0]],
      },
    ],
  };
}

test.each([0, 40])(
  'a page of few colours is marked as one of many is, part from %i px on',
  async (left) => {
    const rgba = new Uint8Array(WIDTH * HEIGHT * 4).fill(255);
    for (let at = 0; at < rgba.length; at += 36) rgba.set([20, 30, 40, 255], at);
    const plain = { width: WIDTH, height: HEIGHT, rgba };
    const few = fewColours(plain);
    if (few === null) throw new Error('few colours');
    const rows = rowsOf(few, few.indexes);
    const pixels = new SharedArrayBuffer(rows.length);
    new Uint8Array(pixels).set(rows);
    const drawn = {
      pixels,
      colours: few.colours,
      width: WIDTH,
      height: HEIGHT,
    } as unknown as Drawn;
    const stamp = stroke(left);
    for (const _again of [1, 2]) {
      const { bytes, type } = await markedPicture(drawn, stamp);
      expect(type).toBe('image/png');
      const { data } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
      const wanted = burnPalette({ ...few, indexes: few.indexes.slice() }, stamp);
      if (wanted === null) throw new Error('it fits a palette');
      expect(Buffer.compare(data, asPicture(wanted).rgba)).toBe(0);
      // And what is there is what burning pixel by pixel makes, but for steps in the letters' edges.
      const slow = { ...plain, rgba: rgba.slice() };
      burn(slow, stamp);
      const off = data.reduce(
        (most, value, at) => Math.max(most, Math.abs(value - (slow.rgba[at] ?? 0))),
        0,
      );
      expect(off).toBeLessThan(40);
      expect(Buffer.compare(data, Buffer.from(rgba))).not.toBe(0);
    }
  },
);
