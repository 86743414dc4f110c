import { colourOnPaper, type Picture } from '@/core/watermark/burn';
import { widthOf, outlineOf } from '@/core/watermark/outline';
import { rasterise } from '@/core/watermark/raster';
import { letterSize, type ShapedLayer } from '@/core/watermark/layout';

/** Height of a strip and of its letters, in em of the letters. */
const STRIP = 2.2;
const BASELINE = 1.45;

/**
 * The page with a strip of paper above it for each banner. The page becomes a little smaller, so
 * that the sheet keeps its shape and nothing on it is covered; without banners it is as it was.
 */
export function withBanners(page: Picture, layers: readonly ShapedLayer[]): Picture {
  const banners = layers.filter(({ layer }) => layer.place === 'banner');
  if (banners.length === 0) return page;
  const sizes = banners.map(({ layer }) => letterSize(page, layer.size));
  const strips = sizes.map((size) => Math.round(size * STRIP));
  const height = page.height + strips.reduce((sum, each) => sum + each, 0);
  const width = Math.round((page.width * height) / page.height);
  const rgba = new Uint8Array(width * height * 4).fill(255);
  const sheet = { width, height, rgba };
  const left = Math.floor((width - page.width) / 2);
  const top = height - page.height;
  for (let row = 0; row < page.height; row++) {
    const from = row * page.width * 4;
    rgba.set(page.rgba.subarray(from, from + page.width * 4), ((top + row) * width + left) * 4);
  }
  let at = 0;
  banners.forEach((banner, i) => {
    drawBanner(sheet, banner, at, sizes[i] ?? 0);
    at += strips[i] ?? 0;
  });
  return sheet;
}

/** Letters in full strength between two thin lines: a strip has nothing beneath it to be seen. */
function drawBanner(
  sheet: Picture,
  { layer, whole: glyphs }: ShapedLayer,
  top: number,
  wanted: number,
): void {
  const longest = widthOf(glyphs, wanted);
  const size = Math.min(wanted, (wanted * sheet.width * 0.96) / Math.max(1, longest));
  const { red, green, blue } = colourOnPaper(layer);
  const { xs, ys, alphas } = rasterise(outlineOf(glyphs, size));
  const originX = Math.round((sheet.width - widthOf(glyphs, size)) / 2);
  const originY = Math.round(top + wanted * BASELINE);
  const put = (x: number, y: number, share: number) => {
    if (x < 0 || y < 0 || x >= sheet.width || y >= sheet.height) return;
    const at = (y * sheet.width + x) * 4;
    sheet.rgba[at] = 255 + (red - 255) * share;
    sheet.rgba[at + 1] = 255 + (green - 255) * share;
    sheet.rgba[at + 2] = 255 + (blue - 255) * share;
  };
  for (let i = 0; i < xs.length; i++)
    put(originX + (xs[i] ?? 0), originY + (ys[i] ?? 0), (alphas[i] ?? 0) / 255);
  const line = Math.round(top + wanted * STRIP) - 2;
  for (let x = 0; x < sheet.width; x++) put(x, line, 0.6);
}
