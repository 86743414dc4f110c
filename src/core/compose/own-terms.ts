import { CONDITION_NAMES } from '@/core/policy/condition-lines';
import type { ConditionName, Conditions } from '@/core/policy/conditions';
import { RIGHTS, type Right, type Terms } from '@/core/policy/rights';

/**
 * What is set for one row alone, value by value: whatever is absent follows the terms that all rows
 * have in common. `null` sets "none", also where the common terms set something.
 */
export type OwnTerms = {
  readonly rights?: Readonly<Partial<Record<Right, boolean | undefined>>> | undefined;
  readonly from?: number | null | undefined;
  readonly until?: number | null | undefined;
  readonly prints?: number | null | undefined;
  readonly conditions?: Readonly<Partial<Record<ConditionName, unknown>>> | undefined;
};

/** Whether two values of a condition are the same; what is not set is `null`. */
function isSame(a: unknown, b: unknown): boolean {
  return a === b || JSON.stringify(a) === JSON.stringify(b);
}

function valueOf(conditions: Conditions | undefined, name: ConditionName): unknown {
  const value = conditions?.[name];
  return value === undefined || value === false ? null : value;
}

function conditionsWith(
  own: OwnTerms['conditions'],
  common: Conditions | undefined,
): Conditions | undefined {
  if (own === undefined) return common;
  const set = Object.entries({ ...common, ...own }).filter(
    ([, value]) => value != null && value !== false,
  );
  return set.length === 0 ? undefined : Object.fromEntries(set);
}

/** The terms of a row: what is its own, and of the rest what all have in common. */
export function termsWith(own: OwnTerms, common: Terms): Terms {
  const rights = RIGHTS.filter((right) => own.rights?.[right] ?? common.rights.includes(right));
  const prints = own.prints === undefined ? common.prints : own.prints;
  const conditions = conditionsWith(own.conditions, common.conditions);
  return {
    rights,
    from: own.from === undefined ? common.from : own.from,
    until: own.until === undefined ? common.until : own.until,
    prints: rights.includes('print') ? prints : null,
    ...(conditions === undefined ? {} : { conditions }),
  };
}

/** All of these terms as a row's own, so that the row stays as it is whatever the others get. */
export function pinned(terms: Terms): OwnTerms {
  return {
    rights: Object.fromEntries(RIGHTS.map((right) => [right, terms.rights.includes(right)])),
    from: terms.from,
    until: terms.until,
    prints: terms.prints,
    conditions: Object.fromEntries(
      CONDITION_NAMES.map((name) => [name, valueOf(terms.conditions, name)]),
    ),
  };
}

type Value = { readonly before: unknown; readonly after: unknown; readonly common: unknown };

/** Whether a value has to be kept as the row's own after a change, as it was, or not at all. */
function fate({ before, after, common }: Value): 'as-it-was' | 'own' | 'common' {
  if (isSame(before, after)) return 'as-it-was';
  return isSame(after, common) ? 'common' : 'own';
}

/** A part of own values with one of them settled. */
function settled<T extends object>(part: T, name: string, value: Value): T {
  const kept = fate(value);
  if (kept === 'as-it-was') return part;
  const { [name]: _before, ...others } = part as Record<string, unknown>;
  return (kept === 'common' ? others : { ...others, [name]: value.after }) as T;
}

/**
 * The own values of a row whose terms were changed from `before` to `after`. A value that comes to
 * the common one is no longer the row's own; one that was not changed stays as it was.
 */
export function changedOwn(own: OwnTerms, before: Terms, after: Terms, common: Terms): OwnTerms {
  let rights = own.rights ?? {};
  for (const right of RIGHTS)
    rights = settled(rights, right, {
      before: before.rights.includes(right),
      after: after.rights.includes(right),
      common: common.rights.includes(right),
    });
  let conditions = own.conditions ?? {};
  for (const name of CONDITION_NAMES)
    conditions = settled(conditions, name, {
      before: valueOf(before.conditions, name),
      after: valueOf(after.conditions, name),
      common: valueOf(common.conditions, name),
    });
  let rest: OwnTerms = { ...own };
  for (const name of ['from', 'until', 'prints'] as const)
    rest = settled(rest, name, {
      before: before[name],
      after: after[name],
      common: common[name],
    });
  const { rights: _rights, conditions: _conditions, ...others } = rest;
  return {
    ...others,
    ...(Object.keys(rights).length === 0 ? {} : { rights }),
    ...(Object.keys(conditions).length === 0 ? {} : { conditions }),
  };
}
