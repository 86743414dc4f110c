import type { MarkColour, MarkLayer } from '@/core/watermark/layers';
import {
  layOut,
  wholePage,
  type Box,
  type Frame,
  type Placement,
  type ShapedLayer,
  type View,
} from '@/core/watermark/layout';
import { outlineOf, type Contour } from '@/core/watermark/outline';
import { rasterise, type Coverage } from '@/core/watermark/raster';
import type { Glyph } from '@/core/watermark/shape';

/** A picture as red, green, blue, alpha bytes, row by row from the top. */
export type Picture = {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8Array;
};

export type Rgb = { readonly red: number; readonly green: number; readonly blue: number };

/** Each colour on light ground, and the one that stands for it on dark. */
const COLOURS: Readonly<Record<MarkColour, { readonly light: Rgb; readonly dark: Rgb }>> = {
  ink: {
    light: { red: 15, green: 43, blue: 60 },
    dark: { red: 236, green: 240, blue: 240 },
  },
  current: {
    light: { red: 16, green: 92, blue: 100 },
    dark: { red: 170, green: 236, blue: 240 },
  },
  magenta: {
    light: { red: 164, green: 21, blue: 90 },
    dark: { red: 255, green: 176, blue: 216 },
  },
  grey: {
    light: { red: 70, green: 70, blue: 70 },
    dark: { red: 225, green: 225, blue: 225 },
  },
};

/** The colour of a layer as it stands on white paper, each part 0 to 255. */
export function colourOnPaper({ colour }: MarkLayer): Rgb {
  return COLOURS[colour].light;
}

/** Brightness from which on ground is light, of 2,550; halfway as the eye sees it. */
const LIGHT = 1_100;
/** Ground this far from halfway is neither light nor dark; a mark has to be stronger to be seen on it. */
const BETWEEN = 420;
const STRONGER = 1.6;
const MOST = 0.6;
/** Light letters on dark ground are seen more easily than dark ones on light. */
const WEAKER = 0.7;

/** A line ready to be burned into any picture of a view's size. */
type Inked = {
  readonly layer: MarkLayer;
  readonly coverage: Coverage;
  readonly points: Placement['points'];
};
export type Stamp = { readonly crop: Box; readonly inked: readonly Inked[] };

/** A frame as polygons, in px of the page. */
export function contoursOf({ box: { left, top, width, height }, thickness: t }: Frame): Contour[] {
  const [right, bottom] = [left + width, top + height];
  return [
    [left, top, right, top, right, bottom, left, bottom],
    // Turned the other way: what is inside stays empty.
    [left + t, top + t, left + t, bottom - t, right - t, bottom - t, right - t, top + t],
  ];
}

function meets({ crop }: View, { left, top, width, height }: Box): boolean {
  return (
    left < crop.left + crop.width &&
    left + width > crop.left &&
    top < crop.top + crop.height &&
    top + height > crop.top
  );
}

/** What lines cover, as long as their glyphs are in use: every page and every part of one needs them anew. */
const covered = new WeakMap<readonly Glyph[], Map<string, Coverage>>();
/** Sizes of pages that one line is kept for. */
const MOST_SIZES = 8;

function coverageOf(glyphs: readonly Glyph[], size: number, angle: number): Coverage {
  const known = covered.get(glyphs) ?? new Map<string, Coverage>();
  covered.set(glyphs, known);
  const key = `${String(size)} ${String(angle)}`;
  const found = known.get(key);
  if (found !== undefined) return found;
  const coverage = rasterise(outlineOf(glyphs, size, angle));
  if (known.size >= MOST_SIZES) known.clear();
  known.set(key, coverage);
  return coverage;
}

/** Lays a watermark out for pictures of one view; the same stamp serves every page that has it. */
export function makeStamp(layers: readonly ShapedLayer[], view: View): Stamp {
  const { placements, frames } = layOut(layers, view);
  const lines = placements
    .filter(({ points }) => points.length > 0)
    .map(({ layer, glyphs, size, angle, points }) => ({
      layer,
      coverage: coverageOf(glyphs, size, angle),
      points,
    }));
  const framed = frames
    .filter(({ box }) => meets(view, box))
    .map((frame) => ({
      layer: frame.layer,
      coverage: rasterise(contoursOf(frame)),
      points: [[0, 0]] as const,
    }));
  return { crop: view.crop, inked: [...lines, ...framed] };
}

/** A stamp for whole pages of this size in px. */
export function pageStamp(layers: readonly ShapedLayer[], width: number, height: number): Stamp {
  return makeStamp(layers, wholePage(width, height));
}

/**
 * Burns a stamp into a picture of its view, in place. Where the picture is light the letters are
 * dark, where it is dark they are light, and where it is neither they are stronger, so that no page
 * hides them.
 */
export function burn(picture: Picture, { crop, inked }: Stamp): void {
  for (const { layer, coverage, points } of inked) {
    const ink = inkOf(layer);
    for (const [x, y] of points) burnAt(picture, coverage, x - crop.left, y - crop.top, ink);
  }
}

export type Ink = {
  readonly light: Rgb;
  readonly dark: Rgb;
  readonly onLight: number;
  readonly onDark: number;
  readonly between: number;
};

export function inkOf({ colour, strength }: MarkLayer): Ink {
  // Whole numbers, a share of 2^16 for a coverage of 255: no division stands in the innermost loop.
  const share = (of: number): number => Math.round((of * 65_536) / 255);
  const wanted = strength / 100;
  return {
    ...COLOURS[colour],
    onLight: share(wanted),
    onDark: share(wanted * WEAKER),
    between: share(Math.min(MOST, wanted * STRONGER)),
  };
}

function burnAt(
  { width, height, rgba }: Picture,
  { xs, ys, alphas }: Coverage,
  originX: number,
  originY: number,
  ink: Ink,
): void {
  for (let i = 0; i < xs.length; i++) {
    const x = originX + (xs[i] ?? 0);
    const y = originY + (ys[i] ?? 0);
    if (x < 0 || y < 0 || x >= width || y >= height) continue;
    mix(rgba, (y * width + x) * 4, alphas[i] ?? 0, ink);
  }
}

/** Mixes one pixel with whichever colour stands out there. */
export function mix(rgba: Picture['rgba'], at: number, alpha: number, ink: Ink): void {
  const red = rgba[at] ?? 0;
  const green = rgba[at + 1] ?? 0;
  const blue = rgba[at + 2] ?? 0;
  const above = red * 3 + green * 6 + blue - LIGHT;
  const colour = above > 0 ? ink.light : ink.dark;
  const share =
    alpha * (above > BETWEEN ? ink.onLight : above < -BETWEEN ? ink.onDark : ink.between);
  rgba[at] = red + (((colour.red - red) * share) >> 16);
  rgba[at + 1] = green + (((colour.green - green) * share) >> 16);
  rgba[at + 2] = blue + (((colour.blue - blue) * share) >> 16);
}
