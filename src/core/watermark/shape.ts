import { inSeenOrder, levelsOf } from '@/core/base/seen-order';
import font from '@/core/watermark/outlines.json' with { type: 'json' };

/**
 * One glyph of a line: how far the next one begins after it, where it stands from its own place, and
 * its outline as an SVG path, all in thousandths of an em; y grows upwards.
 */
export type Glyph = {
  readonly advance: number;
  readonly x: number;
  readonly y: number;
  readonly path: string;
};

/**
 * Glyphs for a run of characters that the outlines shipped with the core lack, in the order they are
 * seen in; null: no font has them.
 */
export type OtherScripts = (
  run: string,
  isRightToLeft: boolean,
) => Promise<readonly Glyph[] | null>;

type Outlines = Readonly<Record<string, readonly [number, string] | undefined>>;
const outlines = font.outlines as unknown as Outlines;
const EM = 1000;

/** Stands for a character that no shipped font has: better a visible gap than a silent one. */
const MISSING: readonly [number, string] = [
  560,
  'M60 0L500 0L500 660L60 660ZM120 60L120 600L440 600L440 60Z',
];

/** A run of characters in one direction that are drawn from one source. */
type Run = { readonly text: string; readonly level: number; readonly own: boolean };

function isOwn(character: string): boolean {
  return outlines[character] !== undefined;
}

/** Spaces and marks between go with what stands around them. */
function isNeutral(character: string): boolean {
  return /^[\s\p{P}\p{M}]$/u.test(character);
}

function runsOf(text: string): Run[] {
  const levels = levelsOf(text);
  const runs: { text: string; level: number; own: boolean }[] = [];
  let at = 0;
  for (const character of text) {
    const level = levels[at] ?? 0;
    at += character.length;
    const last = runs.at(-1);
    const joins =
      last?.level === level &&
      (last.own === isOwn(character) || (!last.own && isNeutral(character)));
    if (joins) last.text += character;
    else runs.push({ text: character, level, own: isOwn(character) });
  }
  return runs;
}

function ownGlyph(character: string): Glyph {
  // An accented letter the font lacks is drawn without its accent.
  const [advance, path] =
    outlines[character] ?? outlines[character.normalize('NFD').charAt(0)] ?? MISSING;
  return { advance: (advance / font.unitsPerEm) * EM, x: 0, y: 0, path };
}

async function glyphsOf(run: Run, others: OtherScripts): Promise<readonly Glyph[]> {
  const isRightToLeft = run.level % 2 === 1;
  const characters = Array.from(run.text);
  const found = run.own ? null : await others(run.text, isRightToLeft);
  return found ?? (isRightToLeft ? characters.reverse() : characters).map(ownGlyph);
}

/** One line of text as glyphs, from left to right, whatever scripts it is written in. */
export async function shapeLine(text: string, others: OtherScripts): Promise<readonly Glyph[]> {
  const shaped = await Promise.all(inSeenOrder(runsOf(text)).map((run) => glyphsOf(run, others)));
  return shaped.flat();
}

/** Where only what is shipped with the core can be drawn. */
export const ownScriptsOnly: OtherScripts = () => Promise.resolve(null);
