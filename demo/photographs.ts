import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { createChance } from './chance';

const WIDTH = 1200;
const HEIGHT = 800;

type Colour = readonly [number, number, number];
const mix = (a: Colour, b: Colour, t: number): Colour => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];

/** The outline of an invented hull on the slip, in parts of the picture's width and height. */
function inHull(x: number, y: number, length: number): boolean {
  const along = (x - 0.5 + length / 2) / length;
  if (along < 0 || along > 1) return false;
  const sheer = 0.47 - 0.05 * (2 * along - 1) ** 2;
  const keel = 0.72 - 0.12 * Math.max(0, along - 0.78) * 4;
  return y > sheer && y < keel - 0.1 * Math.max(0, 0.12 - along) * 8;
}

/** A photograph that never was: sky, water, a hull under build, and the grain of a camera. */
export async function takePicture(seed: number): Promise<Buffer> {
  const chance = createChance(seed);
  const [dawn, length, tilt] = [chance(), 0.55 + chance() * 0.25, chance() * 0.04];
  const sky: readonly [Colour, Colour] = [
    mix([96, 130, 160], [196, 150, 120], dawn),
    mix([214, 222, 224], [244, 214, 180], dawn),
  ];
  const pixels = Buffer.alloc(WIDTH * HEIGHT * 3);
  for (let row = 0; row < HEIGHT; row++) {
    const y = row / HEIGHT;
    for (let column = 0; column < WIDTH; column++) {
      const x = column / WIDTH;
      const horizon = 0.62 + (x - 0.5) * tilt;
      const wave = Math.sin(x * 90 + y * 400) * 6;
      let colour =
        y < horizon
          ? mix(sky[0], sky[1], y / horizon)
          : (mix([70, 98, 108], [30, 52, 64], (y - horizon) / (1 - horizon)).map(
              (part) => part + wave,
            ) as unknown as Colour);
      if (inHull(x, y, length))
        colour = mix([120, 62, 48], [52, 58, 64], Math.min(1, Math.max(0, (0.6 - y) * 12)));
      if (
        Math.abs(x - 0.5) < length / 2 &&
        y > 0.2 &&
        y < 0.72 &&
        Math.floor(x * 40) % 5 === 0 &&
        (x * 40) % 1 < 0.06
      )
        colour = [70, 72, 70];
      const grain = (chance() - 0.5) * 22;
      for (let part = 0; part < 3; part++)
        pixels[(row * WIDTH + column) * 3 + part] = Math.max(
          0,
          Math.min(255, (colour[part] ?? 0) + grain),
        );
    }
  }
  return sharp(pixels, { raw: { width: WIDTH, height: HEIGHT, channels: 3 } })
    .blur(0.6)
    .jpeg({ quality: 82 })
    .toBuffer();
}

/** Photographs of the yard as one PDF, a picture a page. */
export async function photographs(title: string, pages: number, seed: number): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(title);
  for (let page = 0; page < pages; page++) {
    const picture = await pdf.embedJpg(await takePicture(seed + page));
    pdf.addPage([842, 595]).drawImage(picture, { x: 21, y: 31, width: 800, height: 533 });
  }
  return pdf.save();
}
