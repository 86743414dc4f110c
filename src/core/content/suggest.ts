import { titleFrom } from '@/core/content/names';

/** What shows of a file that is being taken in. */
export type FileShown = {
  readonly fileName: string;
  /** The title that the file itself states; empty: none. */
  readonly title: string;
  /** The text of its first pages. */
  readonly text: string;
};

/** Titles that programs write by themselves. */
const MEANINGLESS = /^(untitled|document\d*|presentation\d*|book\d*|title|microsoft \w+ - .*)$/i;

/** Capitals and figures in groups, a figure among them: `TQ-412-GA-01`. */
const REFERENCE = /\b[A-Z]{1,6}(?:[-/.][A-Z0-9]{1,8}){1,5}\b/g;
/** What stands before a reference on a page. */
const LABELS = [
  'reference',
  'ref\\.?',
  'drawing (?:no|number)\\.?',
  'document (?:no|number)\\.?',
  'doc\\.? no\\.?',
];
const LABELLED = new RegExp(`(?:${LABELS.join('|')})\\s*:?\\s*([A-Z0-9][A-Z0-9/.-]{2,30})`, 'i');

function referenceIn(text: string): string | null {
  return text.match(REFERENCE)?.find((each) => /\d/.test(each)) ?? null;
}

/** A reference that the file gives itself: in its name, its title, or beside a label on its first pages. */
export function suggestReference({ fileName, title, text }: FileShown): string | null {
  const labelled = LABELLED.exec(text)?.[1]?.replace(/[.-]+$/, '');
  return referenceIn(titleFrom(fileName)) ?? referenceIn(title) ?? labelled ?? null;
}

/** A title that the file gives itself, without its reference. */
export function suggestTitle({ fileName, title }: FileShown): string {
  const stated = title.trim();
  const isOfUse = stated.length > 2 && !MEANINGLESS.test(stated) && !/\.\w{2,4}$/.test(stated);
  const chosen = isOfUse ? stated : titleFrom(fileName);
  const reference = referenceIn(chosen);
  const bare =
    reference === null ? chosen : chosen.replace(reference, ' ').replaceAll(/\s+/g, ' ').trim();
  return bare.replace(/^[\s–—:,-]+|[\s–—:,-]+$/g, '') || chosen;
}

type Marking = { readonly id: string; readonly name: string };

/**
 * The marking that a file names itself, the strictest where it names several.
 *
 * @param markings in their order, the strictest last
 */
export function suggestMarking<M extends Marking>(
  markings: readonly M[],
  { title, text }: FileShown,
): M | null {
  const words = ` ${`${title} ${text}`.toLowerCase().replaceAll(/[^\p{L}\p{N}]+/gu, ' ')} `;
  return (
    markings.findLast(({ name }) => {
      const wanted = name
        .toLowerCase()
        .replaceAll(/[^\p{L}\p{N}]+/gu, ' ')
        .trim();
      return wanted !== '' && words.includes(` ${wanted} `);
    }) ?? null
  );
}

/**
 * The stricter of two markings; what is unknown or none is the least strict.
 *
 * @param markings in their order, the strictest last
 */
export function stricterMarking<Id extends string>(
  markings: readonly { readonly id: Id }[],
  a: Id | null,
  b: Id | null,
): Id | null {
  const place = (id: Id | null): number => markings.findIndex((each) => each.id === id);
  return place(b) > place(a) ? b : a;
}
