import type { Conditions } from '@/core/policy/conditions';
import {
  brokenDependencies,
  RIGHTS,
  type Dependency,
  type Right,
  type Terms,
} from '@/core/policy/rights';
import type { Row } from '@/core/compose/sheet';

/** What a row of the grid can be changed in. */
export type Column = Right | 'ends' | 'opens' | 'conditions' | 'documents';

/** Whether a column is that of a right. */
export function isRightColumn(column: Column): column is Right {
  return RIGHTS.some((right) => right === column);
}

/**
 * Switches a right. One that is switched on stays, also where it cannot stand yet: what it needs is
 * asked for beside it. What cannot stand without one that is switched off falls with it.
 */
export function setRight(
  terms: Terms,
  right: Right,
  on: boolean,
): { readonly terms: Terms; readonly fell: readonly Dependency[] } {
  const rights = RIGHTS.filter((each) => (each === right ? on : terms.rights.includes(each)));
  const next = { ...terms, rights, prints: rights.includes('print') ? terms.prints : null };
  return on ? { terms: next, fell: [] } : fall(next, brokenDependencies(terms));
}

/** Sets how many prints each may make, `null` for as many as wanted, and with it the right itself. */
export function setPrints(terms: Terms, prints: number | null): ReturnType<typeof setRight> {
  const rights = RIGHTS.filter((right) => right === 'print' || terms.rights.includes(right));
  return fall({ ...terms, rights, prints }, brokenDependencies(terms));
}

/** What could stand before and cannot any more falls; what never could is left to whoever asked for it. */
function fall(terms: Terms, before: readonly Dependency[]): ReturnType<typeof setRight> {
  const fell = brokenDependencies(terms).filter(
    ({ right }) => !before.some((each) => each.right === right),
  );
  if (fell.length === 0) return { terms, fell };
  const rights = terms.rights.filter((right) => !fell.some((each) => each.right === right));
  // What fell may have been what another stood on.
  const further = fall({ ...terms, rights }, before);
  return { terms: further.terms, fell: [...fell, ...further.fell] };
}

function withOpens(terms: Terms, opens: number | null): Terms {
  const { opens: _before, ...others } = terms.conditions ?? {};
  return withConditions(terms, opens === null ? others : { ...others, opens });
}

function withConditions({ conditions: _before, ...terms }: Terms, conditions: Conditions): Terms {
  return Object.keys(conditions).length === 0 ? terms : { ...terms, conditions };
}

/** Sets how often each may open it; `null`: as often as wanted. */
export function setOpens(terms: Terms, opens: number | null): Terms {
  return withOpens(terms, opens);
}

/** Takes what stands in a column of other terms. Documents are not among terms. */
export function takeColumn(terms: Terms, column: Column, from: Terms): Terms {
  return isRightColumn(column) ? takeRight(terms, column, from) : takeOther(terms, column, from);
}

function takeRight(terms: Terms, right: Right, from: Terms): Terms {
  const { terms: next } = setRight(terms, right, from.rights.includes(right));
  return right === 'print' && next.rights.includes('print')
    ? setPrints(next, from.prints).terms
    : next;
}

function takeOther(terms: Terms, column: Exclude<Column, Right>, from: Terms): Terms {
  switch (column) {
    case 'ends':
      return { ...terms, from: from.from, until: from.until };
    case 'opens':
      return withOpens(terms, from.conditions?.opens ?? null);
    case 'conditions':
      return withOpens(
        withConditions(terms, from.conditions ?? {}),
        terms.conditions?.opens ?? null,
      );
    case 'documents':
      return terms;
  }
}

/** The conditions besides the number of opens, which has a column of its own. */
export function otherConditions({ conditions }: Terms): Conditions {
  const { opens: _opens, ...others } = conditions ?? {};
  return others;
}

/** Whether a row differs in a column from what all have in common. */
export function differsIn(column: Column, row: Row, own: Terms, common: Terms): boolean {
  if (column === 'documents') return row.without.length > 0;
  if (column === 'print')
    return (
      own.rights.includes('print') !== common.rights.includes('print') ||
      own.prints !== common.prints
    );
  if (isRightColumn(column)) return own.rights.includes(column) !== common.rights.includes(column);
  if (column === 'ends') return own.until !== common.until || own.from !== common.from;
  if (column === 'opens')
    return (own.conditions?.opens ?? null) !== (common.conditions?.opens ?? null);
  return JSON.stringify(otherConditions(own)) !== JSON.stringify(otherConditions(common));
}
