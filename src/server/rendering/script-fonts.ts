import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import fontkit from '@cantoo/fontkit';
import { decompress } from 'wawoff2';
import type { Glyph, OtherScripts } from '@/core/watermark/shape';

/** Families that are looked through for a character, in this order. */
const FAMILIES = ['noto-sans', 'noto-sans-arabic', 'noto-sans-jp', 'noto-sans-sc'] as const;
type Family = (typeof FAMILIES)[number];
const WEIGHT = 600;
const EM = 1_000;
/** Files of one family are many and small; those in use are few. */
const MOST_OPEN = 40;

type Subset = {
  readonly family: Family;
  readonly file: string;
  readonly ranges: readonly (readonly [number, number])[];
};
type Font = Extract<ReturnType<typeof fontkit.create>, { readonly unitsPerEm: number }>;

const find = createRequire(import.meta.url);

/** `U+4E00-4E0F,U+4E11` as pairs of first and last. */
function rangesOf(text: string): [number, number][] {
  return text.split(',').map((range) => {
    const [first = '', last = first] = range.trim().replace(/^U\+/i, '').split('-');
    return [Number.parseInt(first, 16), Number.parseInt(last, 16)];
  });
}

function subsetsOf(family: Family): Subset[] {
  const listed = find.resolve(`@fontsource-variable/${family}/unicode.json`);
  const unicode = JSON.parse(readFileSync(listed, 'utf8')) as Readonly<Record<string, string>>;
  return Object.entries(unicode).map(([name, ranges]) => ({
    family,
    file: path.join(
      path.dirname(listed),
      'files',
      `${family}-${name.replaceAll(/[[\]]/g, '')}-wght-normal.woff2`,
    ),
    ranges: rangesOf(ranges),
  }));
}

/** The glyphs of scripts that the watermark's own outlines lack, from fonts that ship with the product. */
export function createScriptFonts(): OtherScripts {
  let subsets: readonly Subset[] | null = null;
  const open = new Map<string, Promise<Font>>();

  const subsetFor = (character: string): Subset | null => {
    subsets ??= FAMILIES.flatMap(subsetsOf);
    const code = character.codePointAt(0) ?? 0;
    return (
      subsets.find(({ ranges }) => ranges.some(([from, to]) => code >= from && code <= to)) ?? null
    );
  };
  const fontOf = async ({ file }: Subset): Promise<Font> => {
    const known = open.get(file) ?? opened(file);
    if (open.size >= MOST_OPEN) open.clear();
    open.set(file, known);
    return known;
  };

  return async (run, isRightToLeft) => {
    const pieces = piecesOf(run, subsetFor);
    if (pieces === null) return null;
    const shaped = await Promise.all(
      pieces.map(async ({ text, subset }) => glyphsOf(await fontOf(subset), text, isRightToLeft)),
    );
    return (isRightToLeft ? shaped.reverse() : shaped).flat();
  };
}

let unpacking: Promise<unknown> = Promise.resolve();

/** The unpacker hands out its own memory, which the next one to use it writes over: one at a time, and copied. */
async function unpacked(file: string): Promise<Buffer> {
  const before = unpacking;
  const own = before.then(async () => Buffer.from(await decompress(readFileSync(file))));
  unpacking = own.catch(() => undefined);
  return own;
}

async function opened(file: string): Promise<Font> {
  const font = fontkit.create(await unpacked(file));
  if (!('unitsPerEm' in font)) throw new Error(`${file} is a collection of fonts.`);
  return font.getVariation({ wght: WEIGHT });
}

type Shaped = { readonly text: string; readonly subset: Subset };

/** A run in pieces that one file has all characters of; `null` where one is in none. */
function piecesOf(run: string, subsetFor: (character: string) => Subset | null): Shaped[] | null {
  const pieces: { text: string; subset: Subset }[] = [];
  for (const character of run) {
    const last = pieces.at(-1);
    // What stands between words has no script of its own.
    if (last !== undefined && /^[\s\p{M}]$/u.test(character)) {
      last.text += character;
      continue;
    }
    const subset = subsetFor(character);
    if (subset === null) return null;
    if (last?.subset === subset) last.text += character;
    else pieces.push({ text: character, subset });
  }
  return pieces;
}

function glyphsOf(font: Font, text: string, isRightToLeft: boolean): Glyph[] {
  const scale = EM / font.unitsPerEm;
  const { glyphs, positions } = font.layout(
    text,
    undefined,
    undefined,
    undefined,
    isRightToLeft ? 'rtl' : 'ltr',
  );
  return glyphs.map((glyph, i) => {
    const position = positions?.[i];
    return {
      advance: (position?.xAdvance ?? glyph.advanceWidth) * scale,
      x: (position?.xOffset ?? 0) * scale,
      y: (position?.yOffset ?? 0) * scale,
      path: glyph.path.scale(scale).toSVG(),
    };
  });
}
