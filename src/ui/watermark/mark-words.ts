import { counted } from '@/core/base/counted';
import type {
  MarkColour,
  MarkCorner,
  MarkLayer,
  MarkMedium,
  MarkPlace,
} from '@/core/watermark/layers';
import { attributeOf, partsOf, type Piece } from '@/core/watermark/pieces';

export const pieceWords: Readonly<Record<Piece, string>> = {
  name: 'name',
  address: 'email address',
  organisation: 'organisation',
  date: 'date',
  time: 'time',
  network: 'IP address',
  device: 'device',
  title: 'document',
  reference: 'reference',
  version: 'version',
  marking: 'marking',
  folder: 'folder',
  dispatch: 'dispatch',
  page: 'page number',
  copy: 'copy number',
};

/** A piece by its name, in words. */
export function pieceName(name: string): string {
  return attributeOf(name) ?? (name in pieceWords ? pieceWords[name as Piece] : name);
}

export const placeWords: Readonly<Record<MarkPlace, string>> = {
  tiled: 'All over the page',
  header: 'Along the top',
  footer: 'Along the bottom',
  corner: 'Stamp in a corner',
  banner: 'Strip above a printed page',
};

export const mediumWords: Readonly<Record<MarkMedium, string>> = {
  both: 'read and printed',
  screen: 'only as it is read',
  paper: 'only as it is printed',
};

export const colourWords: Readonly<Record<MarkColour, string>> = {
  ink: 'Ink',
  current: 'Blue-green',
  magenta: 'Magenta',
  grey: 'Grey',
};

export const cornerWords: Readonly<Record<MarkCorner, string>> = {
  'top-left': 'Top left',
  'top-right': 'Top right',
  'bottom-left': 'Bottom left',
  'bottom-right': 'Bottom right',
};

export const densityWords = ['Far apart', 'Usual', 'Close'] as const;

/** Where a layer stands: `Along the top, only as it is printed`. */
export function whereWords({ place, on }: MarkLayer): string {
  if (place === 'banner' || on === 'both') return placeWords[place];
  return `${placeWords[place]}, ${mediumWords[on]}`;
}

/** What a watermark says, its pieces by their names: `Tender, for bidders; email address · date`. */
export function wordsOfLayers(layers: readonly MarkLayer[]): string {
  const said = layers.map(({ line }) =>
    partsOf(line)
      .map((part) => (part.kind === 'piece' ? pieceName(part.name) : part.text))
      .join(''),
  );
  return [...new Set(said)].join('; ');
}

/** How many layers: `Watermark` for none but the tiled one would say too little. */
export function layersWords(layers: readonly MarkLayer[]): string {
  return layers.length === 0 ? 'No watermark' : `Watermark, ${counted(layers.length, 'layer')}`;
}
