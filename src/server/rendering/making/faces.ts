import { readFile } from 'node:fs/promises';
import path from 'node:path';
import subsetFont from 'subset-font';
import {
  SCRIPT_FAMILIES,
  piecesOf,
  subsetsOf,
  type Subset,
  type SubsetFor,
} from '@/server/rendering/font-files';

/** How letters look. */
export type Face = 'regular' | 'bold' | 'italic' | 'bold-italic' | 'mono';

/** Letters of one face. */
export type Lettering = { readonly text: string; readonly face: Face };

/** A piece of text, and the font that has all of its characters. */
export type Piece = { readonly text: string; readonly font: string };

export type Faces = {
  /** Cuts text into pieces; characters that no font has are shown as `\ufffd`. */
  readonly split: (lettering: Lettering) => readonly Piece[];
  /** Each font as a TrueType file that has just the characters asked for. */
  readonly fonts: ReadonlyMap<string, Uint8Array>;
};

const FAMILIES: Readonly<
  Record<
    Face,
    { readonly family: string; readonly slope: 'normal' | 'italic'; readonly weight: number }
  >
> = {
  regular: { family: 'noto-sans', slope: 'normal', weight: 400 },
  bold: { family: 'noto-sans', slope: 'normal', weight: 700 },
  italic: { family: 'noto-sans', slope: 'italic', weight: 400 },
  'bold-italic': { family: 'noto-sans', slope: 'italic', weight: 700 },
  mono: { family: 'spline-sans-mono', slope: 'normal', weight: 400 },
};
/** A blank has no outline, and where it is the last glyph of a file, fontkit reads on behind its end. */
const PADDING = Buffer.alloc(64);
const LACKING = '\ufffd';

const files = new Map<Face, SubsetFor>();

function filesFor(face: Face): SubsetFor {
  const known = files.get(face);
  if (known !== undefined) return known;
  const { family, slope } = FAMILIES[face];
  const [own, others] = [subsetsOf([family], slope), subsetsOf(SCRIPT_FAMILIES)];
  const either: SubsetFor = (character) => own(character) ?? others(character);
  files.set(face, either);
  return either;
}

function nameOf({ file }: Subset, face: Face): string {
  return `${path.basename(file, '.woff2')}-${String(FAMILIES[face].weight)}`;
}

/** Text in which every character can be shown. */
function showable(text: string, subsetFor: SubsetFor): string {
  return Array.from(text.replaceAll(/\p{C}+/gu, ''))
    .map((character) => (subsetFor(character) === null ? LACKING : character))
    .join('');
}

/** The same letters in less text: each once, but for those whose font depends on the letter before. */
function distinct(texts: Iterable<Lettering>): Lettering[] {
  const letters = new Map<Face, Set<string>>();
  const whole: Lettering[] = [];
  for (const lettering of texts) {
    if (/\p{M}/u.test(lettering.text)) whole.push(lettering);
    const known = letters.get(lettering.face) ?? new Set<string>();
    letters.set(lettering.face, known);
    for (const character of lettering.text) known.add(character);
  }
  return [...whole, ...[...letters].map(([face, known]) => ({ face, text: [...known].join('') }))];
}

/**
 * The fonts for these texts, out of the families that ship with the product, whatever scripts they
 * are in. Only what is cut that was among them has its letters.
 */
export async function facesFor(texts: Iterable<Lettering>): Promise<Faces> {
  const wanted = new Map<string, { subset: Subset; face: Face; characters: Set<string> }>();
  const split = ({ text, face }: Lettering): (Piece & { readonly subset: Subset })[] => {
    const subsetFor = filesFor(face);
    const pieces = piecesOf(showable(text, subsetFor), subsetFor) ?? [];
    return pieces.map((piece) => ({ ...piece, font: nameOf(piece.subset, face) }));
  };
  for (const lettering of distinct(texts))
    for (const { text, font, subset } of split(lettering)) {
      const known = wanted.get(font) ?? { subset, face: lettering.face, characters: new Set() };
      wanted.set(font, known);
      for (const character of text) known.characters.add(character);
    }
  const fonts = new Map<string, Uint8Array>();
  for (const [font, { subset, face, characters }] of wanted)
    fonts.set(font, await cutOut(subset, face, characters));
  return { split, fonts };
}

/** A file of one weight with some characters out of one of all weights. */
async function cutOut(
  { file }: Subset,
  face: Face,
  characters: ReadonlySet<string>,
): Promise<Uint8Array> {
  const font = await subsetFont(await readFile(file), [...characters].join(''), {
    targetFormat: 'truetype',
    variationAxes: { wght: FAMILIES[face].weight },
  });
  return Buffer.concat([font, PADDING]);
}
