import { fillPieces, partsOf, type PieceValues } from '@/core/watermark/pieces';

/** Where a layer stands: all over the page, at an edge of it, or on a strip of paper beside it. */
export const MARK_PLACES = ['tiled', 'header', 'footer', 'corner', 'banner'] as const;
export type MarkPlace = (typeof MARK_PLACES)[number];
export const MARK_CORNERS = ['top-left', 'top-right', 'bottom-left', 'bottom-right'] as const;
export type MarkCorner = (typeof MARK_CORNERS)[number];
/** What a layer is drawn on: pages as they are read, pages as they are printed, or both. */
export const MARK_MEDIA = ['both', 'screen', 'paper'] as const;
export type MarkMedium = (typeof MARK_MEDIA)[number];
export const MARK_COLOURS = ['ink', 'current', 'magenta', 'grey'] as const;
export type MarkColour = (typeof MARK_COLOURS)[number];

/** One layer of a watermark. What its place has no use for is kept and has no effect. */
export type MarkLayer = {
  readonly place: MarkPlace;
  readonly on: MarkMedium;
  /** Words, and pieces in braces. */
  readonly line: string;
  /** The zone that date and time are told in; null: the organisation's. */
  readonly zone: string | null;
  /** Height of the letters' em, in thousandths of the page's shorter side. */
  readonly size: number;
  /** How steeply a tiled line rises to the right, in degrees. */
  readonly angle: number;
  /** How closely a tiled line is repeated: 1 far apart, 3 close. */
  readonly density: number;
  /** How strongly the letters cover what is beneath them, in percent. */
  readonly strength: number;
  readonly colour: MarkColour;
  readonly corner: MarkCorner;
};
/** All that stands on a page; empty: nothing. */
export type Watermark = readonly MarkLayer[];

/** Within these a mark can be read, and what is beneath it too. */
export const MARK_LIMITS = {
  size: { min: 14, max: 60 },
  angle: { min: -60, max: 60 },
  density: { min: 1, max: 3 },
  strength: { min: 12, max: 40 },
} as const;

/** The longest line accepted, in characters, pieces as written. */
export const MAX_LINE = 240;
/** Layers a dispatch, or one level, may have; pages bear those of all levels together. */
export const MAX_LAYERS = 6;

/** A layer as it begins in each place. */
export function newLayer(place: MarkPlace, line: string): MarkLayer {
  return {
    place,
    on: place === 'banner' ? 'paper' : 'both',
    line,
    zone: null,
    size: place === 'tiled' ? 22 : 16,
    angle: 24,
    density: 2,
    strength: place === 'tiled' ? 20 : 40,
    colour: 'ink',
    corner: 'bottom-right',
  };
}

/** The watermark that is offered first. */
export const DEFAULT_WATERMARK: Watermark = [
  newLayer('tiled', '{address} · {date} {time} · {network} · {reference}'),
  newLayer('banner', 'Copy {copy} · uncontrolled once printed'),
];

function isSame(one: MarkLayer, other: MarkLayer): boolean {
  return (Object.keys(one) as (keyof MarkLayer)[]).every((key) => one[key] === other[key]);
}

/** Whether a watermark holds every layer of another. */
export function holdsLayers(watermark: Watermark, others: Watermark): boolean {
  return others.every((other) => watermark.some((one) => isSame(one, other)));
}

/** Whether two watermarks draw the same. */
export function isSameWatermark(one: Watermark, other: Watermark): boolean {
  return holdsLayers(one, other) && holdsLayers(other, one);
}

/** All layers of several watermarks, each once, in order: what is below can only add. */
export function joinWatermarks(all: readonly Watermark[]): Watermark {
  const joined: MarkLayer[] = [];
  for (const layer of all.flat()) {
    if (!joined.some((each) => isSame(each, layer))) joined.push(layer);
  }
  return joined;
}

/** What a watermark says, pieces as they are written, for a record: each line once. */
export function linesOf(watermark: Watermark): string {
  return [...new Set(watermark.map(({ line }) => line))].join('; ');
}

/** The layers that are drawn on a medium. */
export function layersOn(watermark: Watermark, medium: Exclude<MarkMedium, 'both'>): Watermark {
  return watermark.filter(({ on }) => on === 'both' || on === medium);
}

/**
 * The watermark with its pieces filled in.
 *
 * @param valuesIn what they are filled with, date and time told in the zone of each layer
 */
export function fillLayers(
  watermark: Watermark,
  valuesIn: (zone: string | null) => PieceValues,
): Watermark {
  return watermark.map((layer) => ({
    ...layer,
    line: fillPieces(layer.line, valuesIn(layer.zone)),
  }));
}

/**
 * What is printed: the layers for paper, and the number of the copy wherever none of them says it,
 * since a copy that cannot be told from another cannot be counted.
 */
export function paperLayers(watermark: Watermark): Watermark {
  const layers = layersOn(watermark, 'paper');
  const saysCopy = layers.some(({ line }) =>
    partsOf(line).some((part) => part.kind === 'piece' && part.name === 'copy'),
  );
  return saysCopy ? layers : [...layers, newLayer('footer', '{reference} · copy {copy}')];
}
