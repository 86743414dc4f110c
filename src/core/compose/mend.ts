import type { DocumentId } from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import { brokenDependencies, standingTerms, withNeeds, type Terms } from '@/core/policy/rights';
import {
  changeRows,
  changeTerms,
  pickDocument,
  removeRows,
  termsOfRow,
  type Sheet,
} from '@/core/compose/sheet';

/** What mends a concern with one press. Those without rows are about every row that it is true of. */
export type Mend =
  | { readonly kind: 'remove-rows'; readonly rows: readonly string[] }
  | { readonly kind: 'give-rows-all'; readonly rows: readonly string[] }
  | { readonly kind: 'remove-documents'; readonly documents: readonly DocumentId[] }
  | { readonly kind: 'give-documents'; readonly documents: readonly DocumentId[] }
  | { readonly kind: 'correct-address'; readonly row: string; readonly address: string }
  | { readonly kind: 'set-end'; readonly until: Moment }
  /** Is about the message, and leaves the sheet as it is. */
  | { readonly kind: 'note-behind-link' }
  | {
      readonly kind:
        | 'give-needs'
        | 'give-keep'
        | 'take-unable'
        | 'drop-start'
        | 'pass-to-one'
        | 'take-pass-on'
        | 'give-own-machine';
    };

type Repair = {
  readonly isBroken: (terms: Terms, now: Moment) => boolean;
  readonly repair: (terms: Terms) => Terms;
};

function without(terms: Terms, isTaken: (right: Terms['rights'][number]) => boolean): Terms {
  return { ...terms, rights: terms.rights.filter((right) => !isTaken(right)) };
}

const passesToNobody = ({ rights, conditions }: Terms): boolean =>
  rights.includes('pass-on') && conditions?.passOn == null;

function repairOf(mend: Mend): Repair | null {
  switch (mend.kind) {
    case 'give-needs':
      return { isBroken: (terms) => brokenDependencies(terms).length > 0, repair: withNeeds };
    case 'give-keep':
      return {
        isBroken: ({ rights }) => !rights.includes('keep'),
        repair: (terms) => withNeeds({ ...terms, rights: [...terms.rights, 'keep'] }),
      };
    case 'give-own-machine':
      return {
        isBroken: ({ conditions }) => conditions?.offline == null,
        repair: (terms) => ({ ...terms, conditions: { ...terms.conditions, offline: 0 } }),
      };
    case 'take-unable':
      return { isBroken: (terms) => brokenDependencies(terms).length > 0, repair: standingTerms };
    case 'set-end':
      return {
        isBroken: ({ until }, now) => until === null || until <= now,
        repair: (terms) => ({ ...terms, until: mend.until }),
      };
    case 'drop-start':
      return {
        isBroken: ({ from }, now) => from !== null && from > now,
        repair: (terms) => ({ ...terms, from: null }),
      };
    case 'pass-to-one':
      return {
        isBroken: passesToNobody,
        repair: (terms) => ({
          ...terms,
          conditions: { ...terms.conditions, passOn: { people: 1, domains: null, steps: 1 } },
        }),
      };
    case 'take-pass-on':
      return {
        isBroken: passesToNobody,
        repair: (terms) => without(terms, (right) => right === 'pass-on'),
      };
    default:
      return null;
  }
}

/** Repairs the terms in common where they are at fault, and those of the rows that still are. */
function repaired(sheet: Sheet, common: Terms, { isBroken, repair }: Repair, now: Moment): Sheet {
  const isOfAll = sheet.rows.some(
    (row) => isBroken(termsOfRow(row, common), now) && isBroken(common, now),
  );
  const after = isOfAll ? changeTerms(sheet, common, 'common', repair) : sheet;
  const shared = isOfAll ? repair(common) : common;
  const rows = after.rows
    .filter((row) => isBroken(termsOfRow(row, shared), now))
    .map(({ key }) => key);
  return rows.length === 0 ? after : changeTerms(after, shared, new Set(rows), repair);
}

function corrected(sheet: Sheet, from: string, to: string): Sheet {
  const isThere = sheet.rows.some(({ key }) => key === to);
  if (isThere) return removeRows(sheet, new Set([from]));
  return changeRows(sheet, new Set([from]), (row) => ({
    ...row,
    key: to,
    name: '',
    organisation: '',
  }));
}

/**
 * The sheet with a concern mended.
 *
 * @param common the terms in common as they stand
 */
export function mended(sheet: Sheet, common: Terms, mend: Mend, now: Moment): Sheet {
  const repair = repairOf(mend);
  if (repair !== null) return repaired(sheet, common, repair, now);
  switch (mend.kind) {
    case 'remove-rows':
      return removeRows(sheet, new Set(mend.rows));
    case 'give-rows-all':
      return changeRows(sheet, new Set(mend.rows), (row) => ({ ...row, without: [] }));
    case 'remove-documents':
      return mend.documents.reduce((left, id) => pickDocument(left, id, false), sheet);
    case 'give-documents':
      return {
        ...sheet,
        rows: sheet.rows.map((row) => ({
          ...row,
          without: row.without.filter((id) => !mend.documents.includes(id)),
        })),
      };
    case 'correct-address':
      return corrected(sheet, mend.row, mend.address);
    default:
      return sheet;
  }
}
