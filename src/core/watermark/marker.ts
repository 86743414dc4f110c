import { withBanners } from '@/core/watermark/band';
import { burn, makeStamp, pageStamp, type Picture, type Stamp } from '@/core/watermark/burn';
import { fillLayers, layersOn, type Watermark } from '@/core/watermark/layers';
import { shapeLayers, type ShapedLayer, type View } from '@/core/watermark/layout';
import type { OtherScripts } from '@/core/watermark/shape';

/** Watermarks that are kept as glyphs, with what they cover: each open has one of its own, some 100 kB. */
const KEPT = 256;

export type Marker = {
  /** What is for the screen, ready to be burned into a picture of a page, or of a part of one. */
  readonly stamp: (watermark: Watermark, page: number, view: View) => Promise<Stamp>;
  /** A page as it goes on paper: marked, and with what stands beside it. */
  readonly markPaper: (picture: Picture, watermark: Watermark, page: number) => Promise<Picture>;
  /** A watermark as glyphs. */
  readonly shaped: (watermark: Watermark) => Promise<readonly ShapedLayer[]>;
};

/** Marks pages in one worker. `others`: where the glyphs come from that the core has no outlines of. */
export function createMarker(others: OtherScripts): Marker {
  const kept = new Map<string, Promise<readonly ShapedLayer[]>>();
  const shaped = (watermark: Watermark): Promise<readonly ShapedLayer[]> => {
    const key = JSON.stringify(watermark);
    const known = kept.get(key) ?? shapeLayers(watermark, others);
    // Put at the end again: what is in use stays.
    kept.delete(key);
    kept.set(key, known);
    const [oldest] = kept.keys();
    if (kept.size > KEPT && oldest !== undefined) kept.delete(oldest);
    return known;
  };
  const onPage = (watermark: Watermark, page: number) =>
    shaped(fillLayers(watermark, () => ({ page: String(page) })));
  return {
    shaped,
    stamp: async (watermark, page, view) =>
      makeStamp(await onPage(layersOn(watermark, 'screen'), page), view),
    markPaper: async (picture, watermark, page) => {
      const layers = await onPage(layersOn(watermark, 'paper'), page);
      burn(picture, pageStamp(layers, picture.width, picture.height));
      return withBanners(picture, layers);
    },
  };
}
