import { groupOf, type AddresseeKind } from '@/core/policy/addressee';
import { termsText, type Terms } from '@/core/policy/rights';
import { HOUR, type Moment } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import { changedOwn } from '@/core/compose/own-terms';
import { EMPTY_SHEET, LINK_KEY, rowOf, type Row, type Sheet } from '@/core/compose/sheet';

/** A grant of a dispatch that is sent the same again. */
export type SentGrant = {
  readonly kind: AddresseeKind;
  /** As it is kept: of a group `group:…`, of a domain `@…`. */
  readonly address: string;
  readonly name: string;
  readonly documentId: DocumentId;
  readonly terms: Terms;
  readonly givenAt: Moment;
};

/** What is taken over: all of it, or only whom it was for, or only on what terms. */
export const TAKES = ['all', 'people', 'terms'] as const;
export type Take = (typeof TAKES)[number];

/** The same span from `now` on, ending on the hour. */
function moved(at: Moment | null, { givenAt }: SentGrant, now: Moment): Moment | null {
  return at === null ? null : Math.ceil((now + at - givenAt) / HOUR) * HOUR;
}

/** Terms with their window as long as it was, beginning at once. */
function termsAgain(grant: SentGrant, now: Moment): Terms {
  return { ...grant.terms, from: null, until: moved(grant.terms.until, grant, now) };
}

/** Those that occur most often. */
function commonest(all: readonly Terms[]): Terms | null {
  const counts = new Map<string, { readonly terms: Terms; n: number }>();
  for (const terms of all) {
    const there = counts.get(termsText(terms));
    if (there === undefined) counts.set(termsText(terms), { terms, n: 1 });
    else there.n++;
  }
  return [...counts.values()].sort((a, b) => b.n - a.n)[0]?.terms ?? null;
}

function emptyRow({ kind, address, name }: SentGrant): Row | null {
  switch (kind) {
    case 'person':
      return rowOf(address, 'person');
    case 'domain':
      return rowOf(address, 'domain');
    case 'link':
      return rowOf(LINK_KEY, 'link');
    case 'group': {
      const id = groupOf(address);
      return id === null ? null : rowOf(id, 'group', { name });
    }
    case 'visitor':
      return null;
  }
}

/**
 * A sheet that gives the same again, from `now` on: each as long as before, with the documents each
 * had. What came to somebody by a group, or was passed on, is not among the grants.
 */
export function sheetAgain(grants: readonly SentGrant[], take: Take, now: Moment): Sheet {
  const documents = [...new Set(grants.map(({ documentId }) => documentId))];
  const common = commonest(grants.map((grant) => termsAgain(grant, now)));
  if (take === 'terms' || common === null) return { ...EMPTY_SHEET, common };
  const byAddress = new Map<string, SentGrant[]>();
  for (const grant of grants) {
    const there = byAddress.get(grant.address);
    if (there === undefined) byAddress.set(grant.address, [grant]);
    else there.push(grant);
  }
  const rows = [...byAddress.values()].flatMap((theirs): Row[] => {
    const [first] = theirs;
    const row = first === undefined ? null : emptyRow(first);
    if (row === null) return [];
    if (take === 'people') return [row];
    const terms = commonest(theirs.map((grant) => termsAgain(grant, now))) ?? common;
    const had = new Set(theirs.map(({ documentId }) => documentId));
    return [
      {
        ...row,
        own: changedOwn({}, common, terms, common),
        without: documents.filter((id) => !had.has(id)),
      },
    ];
  });
  return take === 'people' ? { ...EMPTY_SHEET, rows } : { ...EMPTY_SHEET, documents, rows, common };
}
