import type { MarkLayer, Watermark } from '@/core/watermark/layers';
import { widthOf } from '@/core/watermark/outline';
import { asDrawn, SEPARATOR } from '@/core/watermark/pieces';
import { shapeLine, type Glyph, type OtherScripts } from '@/core/watermark/shape';

/** A part of a page in px, from the page's top left. */
export type Box = {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
};

/** A page at the size it is drawn in, and the part of it that the picture shows. */
export type View = { readonly width: number; readonly height: number; readonly crop: Box };

/** A line of glyphs that is drawn at each of `points`, its baseline turned by `angle` radians. */
export type Placement = {
  readonly layer: MarkLayer;
  readonly glyphs: readonly Glyph[];
  /** px per em */
  readonly size: number;
  readonly angle: number;
  /** Where the baseline begins, in whole px of the page. */
  readonly points: readonly (readonly [number, number])[];
};

/** A frame around a stamp, its line `thickness` px wide. */
export type Frame = { readonly layer: MarkLayer; readonly box: Box; readonly thickness: number };

/** A layer whose line has been made glyphs, part by part. */
export type ShapedLayer = {
  readonly layer: MarkLayer;
  readonly parts: readonly (readonly Glyph[])[];
  readonly separator: readonly Glyph[];
  /** All parts in one line. */
  readonly whole: readonly Glyph[];
};

/**
 * Letters grow with the page up to this many px of its shorter side: in a page that is looked at in
 * detail they stay as large as they are on a screen, and stand there as often as on a whole page.
 */
const LARGEST_SIDE = 1_600;
const SMALLEST_LETTERS = 9;
/** Distance between tiled rows, in em, from far apart to close. */
const ROWS = [8, 6.2, 4.6] as const;
/** Distance between two repetitions in a row, in em. */
const GAP = 2.5;
/** A line at an edge takes at most this share of the page's width. */
const WIDEST = 0.94;
const ROW_HEIGHT = 1.35;
const MARGIN = 0.9;

/** Makes glyphs of every layer that says something. */
export async function shapeLayers(
  watermark: Watermark,
  others: OtherScripts,
): Promise<readonly ShapedLayer[]> {
  const separator = await shapeLine(SEPARATOR, others);
  const shaped = watermark.map(async (layer) => {
    const texts = asDrawn(layer.line)
      .split(SEPARATOR)
      .filter((part) => part !== '');
    const parts = await Promise.all(texts.map((each) => shapeLine(each, others)));
    return { layer, separator, parts, whole: joined(parts, separator) };
  });
  return (await Promise.all(shaped)).filter(({ parts }) => parts.length > 0);
}

/** The view of a whole page. */
export function wholePage(width: number, height: number): View {
  return { width, height, crop: { left: 0, top: 0, width, height } };
}

/** Em size of a layer's letters on a page of this size, in px. */
export function letterSize(
  { width, height }: Pick<View, 'width' | 'height'>,
  size: number,
): number {
  return Math.max(SMALLEST_LETTERS, (Math.min(width, height, LARGEST_SIDE) * size) / 1_000);
}

function joined(parts: ShapedLayer['parts'], separator: readonly Glyph[]): Glyph[] {
  return parts.flatMap((part, i) => (i === 0 ? part : [...separator, ...part]));
}

/** Whether a line of this length, begun here, can be seen in the crop. */
function isSeen({ crop }: View, x: number, y: number, endX: number, endY: number, size: number) {
  return (
    Math.max(x, endX) > crop.left - size &&
    Math.min(x, endX) < crop.left + crop.width + size &&
    Math.max(y, endY) > crop.top - size &&
    Math.min(y, endY) - size < crop.top + crop.height
  );
}

/** How far a box reaches along and across a line that is turned, from the middle of the page. */
function reachOf({ width, height, crop }: View, cos: number, sin: number) {
  const corners = [
    [crop.left, crop.top],
    [crop.left + crop.width, crop.top],
    [crop.left, crop.top + crop.height],
    [crop.left + crop.width, crop.top + crop.height],
  ].map(([x = 0, y = 0]) => [x - width / 2, y - height / 2] as const);
  const along = corners.map(([x, y]) => x * cos + y * sin);
  const across = corners.map(([x, y]) => y * cos - x * sin);
  return {
    from: Math.min(...along),
    to: Math.max(...along),
    top: Math.min(...across),
    bottom: Math.max(...across),
  };
}

/**
 * A line in rows over all that is seen of the page, every second row shifted, so that no crop of a
 * sixth of the page is without one.
 */
function tile({ layer, whole: glyphs }: ShapedLayer, view: View): Placement {
  const size = letterSize(view, layer.size);
  const length = widthOf(glyphs, size);
  const angle = (-layer.angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const along = length + size * GAP;
  const across = size * (ROWS[layer.density - 1] ?? ROWS[1]);
  const reach = reachOf(view, cos, sin);
  const points: [number, number][] = [];
  const [lastRow, lastColumn] = [Math.ceil(reach.bottom / across) + 1, Math.ceil(reach.to / along)];
  for (let row = Math.floor(reach.top / across) - 1; row <= lastRow; row++) {
    for (let column = Math.floor(reach.from / along) - 2; column <= lastColumn; column++) {
      const u = (column + (row % 2 === 0 ? 0 : 0.5)) * along;
      const v = row * across;
      const x = Math.round(view.width / 2 + u * cos - v * sin);
      const y = Math.round(view.height / 2 + u * sin + v * cos);
      if (isSeen(view, x, y, x + length * cos, y + length * sin, size)) points.push([x, y]);
    }
  }
  return { layer, glyphs, size, angle, points };
}

/** Parts in as many rows as they need to fit a width. */
function rowsOf(
  { parts, separator }: ShapedLayer,
  size: number,
  most: number,
): readonly (readonly Glyph[])[] {
  const rows: (readonly Glyph[])[][] = [];
  for (const part of parts) {
    const row = rows.at(-1);
    if (row !== undefined && widthOf(joined([...row, part], separator), size) <= most)
      row.push(part);
    else rows.push([part]);
  }
  return rows.map((row) => joined(row, separator));
}

/** The size at which the longest row fits: a long name is set smaller rather than cut off. */
function fitting(rows: readonly (readonly Glyph[])[], size: number, most: number): number {
  const longest = Math.max(...rows.map((row) => widthOf(row, size)));
  return longest <= most ? size : (size * most) / longest;
}

/** What is laid out so far at the edges of a page: rows of several layers stand below one another. */
type Edges = { top: number; bottom: number };

function atEdge(shaped: ShapedLayer, view: View, edges: Edges): Placement[] {
  const wanted = letterSize(view, shaped.layer.size);
  const most = view.width * WIDEST;
  const rows = rowsOf(shaped, wanted, most);
  const size = fitting(rows, wanted, most);
  const isHeader = shaped.layer.place === 'header';
  const height = rows.length * size * ROW_HEIGHT;
  const first = isHeader
    ? edges.top + size * MARGIN + size
    : view.height - edges.bottom - size * MARGIN - height + size * ROW_HEIGHT;
  if (isHeader) edges.top += height;
  else edges.bottom += height;
  return rows.map((glyphs, i) => ({
    layer: shaped.layer,
    glyphs,
    size,
    angle: 0,
    points: [
      [
        Math.round((view.width - widthOf(glyphs, size)) / 2),
        Math.round(first + i * size * ROW_HEIGHT),
      ],
    ],
  }));
}

/** Each part of a stamp has a row of its own, in a frame in one corner of the page. */
function inCorner(
  { layer, parts }: ShapedLayer,
  view: View,
): { readonly placed: Placement[]; readonly frame: Frame } {
  const wanted = letterSize(view, layer.size);
  const size = fitting(parts, wanted, view.width * 0.45);
  const inside = Math.max(...parts.map((part) => widthOf(part, size)));
  const box = {
    width: Math.round(inside + size * 1.4),
    height: Math.round(parts.length * size * ROW_HEIGHT + size * 0.9),
  };
  const margin = Math.round(size * 1.6);
  const left = layer.corner.endsWith('left') ? margin : view.width - margin - box.width;
  const top = layer.corner.startsWith('top') ? margin : view.height - margin - box.height;
  const placed = parts.map((glyphs, i) => ({
    layer,
    glyphs,
    size,
    angle: 0,
    points: [
      [Math.round(left + size * 0.7), Math.round(top + size * 1.25 + i * size * ROW_HEIGHT)],
    ] as const,
  }));
  return {
    placed,
    frame: { layer, box: { left, top, ...box }, thickness: Math.max(1, Math.round(size / 12)) },
  };
}

/** Where everything of a watermark stands in a view; strips beside the page are not of it. */
export function layOut(
  layers: readonly ShapedLayer[],
  view: View,
): { readonly placements: readonly Placement[]; readonly frames: readonly Frame[] } {
  const edges: Edges = { top: 0, bottom: 0 };
  const placements: Placement[] = [];
  const frames: Frame[] = [];
  for (const shaped of layers) {
    const { place } = shaped.layer;
    if (place === 'tiled') placements.push(tile(shaped, view));
    if (place === 'header' || place === 'footer') placements.push(...atEdge(shaped, view, edges));
    if (place === 'corner') {
      const { placed, frame } = inCorner(shaped, view);
      placements.push(...placed);
      frames.push(frame);
    }
  }
  return { placements, frames };
}
