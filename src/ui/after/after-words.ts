import type { AfterPage, AfterRow } from '@/contracts/after-revocation';
import { counted } from '@/core/base/counted';
import { takenText } from '@/core/insight/after-words';

/** How many recipients have a row of this sort. */
function having(rows: readonly AfterRow[], which: (row: AfterRow) => boolean): number {
  return new Set(rows.filter(which).map(({ recipient }) => recipient)).size;
}

function tookSomething({ copies }: AfterRow): boolean {
  return copies.keptAt !== null || takenText(copies).length > 0;
}

function triedText(rows: readonly AfterRow[]): string {
  const tried = having(rows, ({ tries }) => tries > 0);
  const others = rows.some(({ triesByOthers }) => triesByOthers > 0);
  const who = [
    ...(tried === 0 ? [] : [`${String(tried)} of them`]),
    ...(others ? ['others by what they were sent'] : []),
  ];
  if (who.length === 0) return 'Nobody has tried since.';
  return `Tried since: ${who.join(', and ')}.`;
}

/** How far it is closed, in one sentence. */
export function closedText({ rows, openLinks }: Pick<AfterPage, 'rows' | 'openLinks'>): string {
  const open = having(rows, ({ ways }) => ways.length > 0);
  const offline = having(
    rows,
    ({ ways, offlineUntil }) => ways.length === 0 && offlineUntil !== null,
  );
  const left = [
    ...(open === 0 ? [] : [`${String(open)} of those named here can still read by another way`]),
    ...(offline === 0
      ? []
      : [`${counted(offline, 'person', 'people')} may go on reading what was open`]),
    ...openLinks.map(
      ({ title, dispatch }) => `anyone with the open link of ${dispatch} reads “${title}”`,
    ),
  ];
  if (left.length > 0) return `Not closed yet: ${left.join(', ')}.`;
  const took = having(rows, tookSomething);
  return [
    'Closed: nobody named here can open it.',
    triedText(rows),
    took === 0
      ? 'By the ledger, nothing was taken.'
      : `${counted(took, 'person has', 'people have')} copies or prints that stay where they are.`,
  ].join(' ');
}
