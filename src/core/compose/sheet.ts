import type { DocumentId, TermsId } from '@/core/base/ids';
import type { AddresseeKind } from '@/core/policy/addressee';
import type { Terms } from '@/core/policy/rights';
import { changedOwn, pinned, termsWith, type OwnTerms } from '@/core/compose/own-terms';

export type RowKind = Exclude<AddresseeKind, 'visitor'>;

/** The key of the row that stands for anyone with the link: a dispatch has one at most. */
export const LINK_KEY = 'link';

/** Whom something is for, on what terms, and which of the documents they are not given. */
export type Row = {
  /** The email address, `@yard.example` of a domain, the id of a group, or `LINK_KEY`. */
  readonly key: string;
  readonly kind: RowKind;
  readonly name: string;
  readonly organisation: string;
  readonly own: OwnTerms;
  /** The saved terms that were put here, as long as nothing of them was changed. */
  readonly saved?: TermsId | null | undefined;
  readonly without: readonly DocumentId[];
};

/** What is given to whom, while it is composed. */
export type Sheet = {
  readonly documents: readonly DocumentId[];
  readonly rows: readonly Row[];
  /** The terms in common; `null`: those that the chosen documents begin with. */
  readonly common: Terms | null;
  /** The saved terms that those are, as long as nothing of them was changed. */
  readonly saved: TermsId | null;
};

export const EMPTY_SHEET: Sheet = { documents: [], rows: [], common: null, saved: null };

/** Which terms a change is about: those in common, or those of some rows. */
export type Target = 'common' | ReadonlySet<string>;

/** A row that nothing is set for yet. */
export function rowOf(
  key: string,
  kind: RowKind,
  { name = '', organisation = '' }: { readonly name?: string; readonly organisation?: string } = {},
): Row {
  return { key, kind, name, organisation, own: {}, without: [] };
}

/** The terms of a row under those in common. */
export function termsOfRow(row: Row, common: Terms): Terms {
  return termsWith(row.own, common);
}

/** Adds rows at the end; who is there already stays as they are. */
export function addRows(sheet: Sheet, rows: readonly Row[]): Sheet {
  const known = new Set(sheet.rows.map(({ key }) => key));
  const fresh = rows.filter(({ key }) => {
    const isNew = !known.has(key);
    known.add(key);
    return isNew;
  });
  return fresh.length === 0 ? sheet : { ...sheet, rows: [...sheet.rows, ...fresh] };
}

export function removeRows(sheet: Sheet, keys: ReadonlySet<string>): Sheet {
  return { ...sheet, rows: sheet.rows.filter(({ key }) => !keys.has(key)) };
}

/** Changes some rows; the others stay the very same objects. */
export function changeRows(
  sheet: Sheet,
  keys: ReadonlySet<string>,
  change: (row: Row) => Row,
): Sheet {
  return { ...sheet, rows: sheet.rows.map((row) => (keys.has(row.key) ? change(row) : row)) };
}

/**
 * Changes terms. Of rows, what is changed becomes their own, and what comes to the common value is
 * no longer so.
 *
 * @param common the terms in common as they stand
 */
export function changeTerms(
  sheet: Sheet,
  common: Terms,
  target: Target,
  change: (terms: Terms) => Terms,
): Sheet {
  if (target === 'common') return { ...sheet, common: change(common), saved: null };
  return changeRows(sheet, target, (row) => {
    const before = termsWith(row.own, common);
    return { ...row, own: changedOwn(row.own, before, change(before), common), saved: null };
  });
}

/** Puts saved terms in place, all of them: rows keep them whatever the common terms become. */
export function putTerms(
  sheet: Sheet,
  target: Target,
  { id, terms }: { readonly id: TermsId; readonly terms: Terms },
): Sheet {
  if (target === 'common') return { ...sheet, common: terms, saved: id };
  return changeRows(sheet, target, (row) => ({ ...row, own: pinned(terms), saved: id }));
}

/** Gives rows the common terms again, and every document. */
export function dropOwn(sheet: Sheet, keys: ReadonlySet<string>): Sheet {
  return changeRows(sheet, keys, (row) => ({ ...row, own: {}, saved: null, without: [] }));
}

/** Adds a document, or takes it away; rows forget about one that is gone. */
export function pickDocument(sheet: Sheet, document: DocumentId, on: boolean): Sheet {
  if (on === sheet.documents.includes(document)) return sheet;
  if (on) return { ...sheet, documents: [...sheet.documents, document] };
  return {
    ...sheet,
    documents: sheet.documents.filter((id) => id !== document),
    rows: sheet.rows.map((row) =>
      row.without.includes(document)
        ? { ...row, without: row.without.filter((id) => id !== document) }
        : row,
    ),
  };
}

/** Gives a document to rows, or leaves it away. */
export function giveDocument(
  sheet: Sheet,
  keys: ReadonlySet<string>,
  document: DocumentId,
  on: boolean,
): Sheet {
  return changeRows(sheet, keys, (row) => {
    const others = row.without.filter((id) => id !== document);
    return { ...row, without: on ? others : [...others, document] };
  });
}
