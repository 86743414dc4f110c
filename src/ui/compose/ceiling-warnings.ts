import { counted } from '@/core/base/counted';
import type { CeilingRow } from '@/contracts/ceiling';
import type { DocumentRow } from '@/contracts/document';
import { underCeilings, type Ceiling, type Origin } from '@/core/policy/ceiling';
import { keepForbiddenBy } from '@/core/policy/delivery';
import { reaching, type Parents } from '@/core/policy/levels';
import type { Terms } from '@/core/policy/rights';
import { levelOf } from '@/ui/words/limit-words';

/** Ceilings with their names, and which folder lies in which. */
export type CeilingsKnown = { readonly rows: readonly CeilingRow[]; readonly parents: Parents };

function nameOf(ceiling: Ceiling, rows: readonly CeilingRow[]): string {
  const row = rows.find((each) => each.level === ceiling.level && each.subject === ceiling.subject);
  const setBy = row === undefined || row.setBy === '' ? '' : `, which ${row.setBy} set`;
  return `the ceiling of ${levelOf({ level: ceiling.level, name: row?.name ?? '' })}${setBy}`;
}

function documentsNamed(titles: readonly string[]): string {
  return titles.length > 3
    ? `${String(titles.length)} of the documents`
    : titles.map((title) => `“${title}”`).join(', ');
}

/**
 * What of these terms the ceilings over the chosen documents would take, a sentence each: what is
 * given is kept, so it holds as soon as a ceiling is raised.
 *
 * @param textOf a moment in words
 */
export function ceilingWarnings(
  documents: readonly DocumentRow[],
  terms: Terms,
  now: number,
  { rows, parents }: CeilingsKnown,
  textOf: (moment: number) => string,
): string[] {
  const byText = new Map<string, string[]>();
  const add = (text: string, title: string): void => {
    byText.set(text, [...(byText.get(text) ?? []), title]);
  };
  for (const { id, title, markingId, folderId } of documents) {
    const {
      terms: effective,
      taken,
      origins,
    } = underCeilings(
      terms,
      now,
      reaching({ document: id, marking: markingId, folder: folderId }, rows, parents),
    );
    for (const [right, ceiling] of taken)
      add(`nobody may ${right}, by ${nameOf(ceiling, rows)}`, title);
    const say = (origin: Origin, text: string): void => {
      if (origin.from === 'ceiling') add(`${text}, by ${nameOf(origin.ceiling, rows)}`, title);
    };
    if (effective.until !== null) say(origins.until, `access ends on ${textOf(effective.until)}`);
    if (effective.rights.includes('print'))
      say(origins.prints, `${counted(effective.prints ?? 0, 'print')} each at most`);
    say(origins.opens, `${counted(effective.conditions?.opens ?? 0, 'open')} each at most`);
    say(origins.countries, 'it opens in certain countries only');
    say(origins.networks, 'it opens from certain networks only');
    say(origins.passkey, 'it asks for a passkey as well');
  }
  return [...byText].map(([text, titles]) => `${documentsNamed(titles)}: ` + `${text}.`);
}

/** Documents that do not go out unprotected, since a ceiling lets nobody keep them; a sentence each. */
export function clearProblems(
  documents: readonly DocumentRow[],
  { rows, parents }: CeilingsKnown,
): string[] {
  return documents.flatMap(({ id, title, markingId, folderId }) => {
    const ceiling = keepForbiddenBy(
      reaching({ document: id, marking: markingId, folder: folderId }, rows, parents),
    );
    return ceiling === null
      ? []
      : [
          `“${title}” does not go out unprotected: nobody may keep it, by ${nameOf(ceiling, rows)}.`,
        ];
  });
}
