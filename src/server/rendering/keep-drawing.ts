import sharp from 'sharp';
import { colourOnPaper, contoursOf } from '@/core/watermark/burn';
import type { MarkLayer } from '@/core/watermark/layers';
import { layOut, wholePage, type ShapedLayer } from '@/core/watermark/layout';
import { outlineOf, type Contour } from '@/core/watermark/outline';
import type { MarkedFile } from '@/core/watermark/marked-file';

const SVG = 'http://www.w3.org/2000/svg';

const round = (value: number): number => Math.round(value * 10) / 10;

/** Outlines as path data (SVG 2, 9.3). */
function pathOf(contours: readonly Contour[]): string {
  return contours
    .map((contour) => {
      const points: string[] = [];
      for (let i = 0; i + 1 < contour.length; i += 2)
        points.push(`${String(round(contour[i] ?? 0))} ${String(round(contour[i + 1] ?? 0))}`);
      return `M${points.join('L')}Z`;
    })
    .join('');
}

/** Outlines, once, at each of some places, in the colour of their layer on white paper. */
function drawn(
  name: string,
  layer: MarkLayer,
  contours: readonly Contour[],
  points: readonly (readonly [number, number])[],
): string {
  const { red, green, blue } = colourOnPaper(layer);
  const places = points.map(([x, y]) => `<use href="#${name}" x="${String(x)}" y="${String(y)}"/>`);
  const fill = `rgb(${String(red)},${String(green)},${String(blue)})`;
  const path = `<defs><path id="${name}" d="${pathOf(contours)}"/></defs>`;
  const opacity = String(layer.strength / 100);
  return `${path}<g fill="${fill}" fill-opacity="${opacity}">${places.join('')}</g>`;
}

/**
 * A drawing with the watermark over it, as a drawing: it stands in it as a picture (SVG 2, 12.3), so
 * that none of its scripts runs and nothing that it names elsewhere is fetched.
 */
export async function keepDrawing(
  bytes: Uint8Array,
  layers: readonly ShapedLayer[],
): Promise<MarkedFile> {
  if (layers.length === 0) return { bytes, marked: false };
  const { width, height } = await sharp(bytes, { limitInputPixels: false }).metadata();
  const { placements, frames } = layOut(layers, wholePage(width, height));
  const marks = [
    ...placements.map(({ layer, glyphs, size, angle, points }, i) =>
      drawn(`line${String(i)}`, layer, outlineOf(glyphs, size, angle), points),
    ),
    ...frames.map((frame, i) =>
      drawn(`frame${String(i)}`, frame.layer, contoursOf(frame), [[0, 0]]),
    ),
  ];
  const size = `width="${String(width)}" height="${String(height)}"`;
  const inside = Buffer.from(bytes).toString('base64');
  const svg =
    `<svg xmlns="${SVG}" ${size} viewBox="0 0 ${String(width)} ${String(height)}">` +
    `<image ${size} href="data:image/svg+xml;base64,${inside}"/>${marks.join('')}</svg>\n`;
  return { bytes: new TextEncoder().encode(svg), marked: true };
}
