import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';

/** Families that are looked through for letters that the product's own lack, in this order. */
export const SCRIPT_FAMILIES = [
  'noto-sans',
  'noto-sans-arabic',
  'noto-sans-hebrew',
  'noto-sans-jp',
  'noto-sans-sc',
  'noto-sans-kr',
] as const;

/** A file of a family that has some of its characters. */
export type Subset = {
  readonly file: string;
  readonly ranges: readonly (readonly [number, number])[];
};

/** The file that has a character; `null`: none does. */
export type SubsetFor = (character: string) => Subset | null;

const find = createRequire(import.meta.url);

/** `U+4E00-4E0F,U+4E11` as pairs of first and last. */
function rangesOf(text: string): [number, number][] {
  return text.split(',').map((range) => {
    const [first = '', last = first] = range.trim().replace(/^U\+/i, '').split('-');
    return [Number.parseInt(first, 16), Number.parseInt(last, 16)];
  });
}

function filesOf(family: string, slope: 'normal' | 'italic'): Subset[] {
  const listed = find.resolve(`@fontsource-variable/${family}/unicode.json`);
  const unicode = JSON.parse(readFileSync(listed, 'utf8')) as Readonly<Record<string, string>>;
  return Object.entries(unicode).map(([name, ranges]) => ({
    file: path.join(
      path.dirname(listed),
      'files',
      `${family}-${name.replaceAll(/[[\]]/g, '')}-wght-${slope}.woff2`,
    ),
    ranges: rangesOf(ranges),
  }));
}

/** Looks through families that ship with the product, in this order. */
export function subsetsOf(
  families: readonly string[],
  slope: 'normal' | 'italic' = 'normal',
): SubsetFor {
  const subsets = families.flatMap((family) => filesOf(family, slope));
  // A text has few characters, each of them many times.
  const known = new Map<string, Subset | null>();
  return (character) => {
    const before = known.get(character);
    if (before !== undefined) return before;
    const code = character.codePointAt(0) ?? 0;
    const has = ({ ranges }: Subset): boolean =>
      ranges.some(([from, to]) => code >= from && code <= to);
    const found = subsets.find(has) ?? null;
    known.set(character, found);
    return found;
  };
}

let unpacking: Promise<unknown> = Promise.resolve();

/** The unpacker hands out its own memory, which the next one to use it writes over: one at a time, and copied. */
export async function unpacked(file: string): Promise<Buffer> {
  const before = unpacking;
  const own = before.then(async () => {
    const { decompress } = await import('wawoff2');
    return Buffer.from(await decompress(readFileSync(file)));
  });
  unpacking = own.catch(() => undefined);
  return own;
}

/** A run in pieces that one file has all characters of; `null` where one is in none. */
export function piecesOf(
  run: string,
  subsetFor: SubsetFor,
): { readonly text: string; readonly subset: Subset }[] | null {
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
