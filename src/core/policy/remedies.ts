import type { GrantId } from '@/core/base/ids';
import {
  causeOfNoEffect,
  causeOfNotLive,
  chainOf,
  type Cause,
  type Rule,
} from '@/core/policy/causes';
import { NEW_GRANT, changed, changedBy, type Case, type Change } from '@/core/policy/changes';
import {
  allGrants,
  compileDocument,
  gives,
  type CompiledGrant,
  type GrantFacts,
} from '@/core/policy/compile';
import { decide, type Decision } from '@/core/policy/decide';
import type { Right } from '@/core/policy/rights';

/** What is wanted of a case: that the document opens, or that it opens and gives a right. */
export type Wanted = 'open' | Right;
export type Grants = ReadonlyMap<GrantId, GrantFacts>;

/** As many changes as anybody would make for one decision. */
const MOST_CHANGES = 12;

function isGiven(decision: Decision, wanted: Wanted): boolean {
  return decision.outcome === 'granted' && (wanted === 'open' || decision.rights[wanted].granted);
}

function decideCase({ policy, asking }: Case): Decision {
  return decide(compileDocument(policy), asking);
}

function atLevel(level: Rule['level'], change: Change | null): Cause {
  return { rule: { level, subject: '', setBy: null, setAt: null }, change };
}

/** What stands in the way whatever grants there are. */
export function causeAboveGrants({ policy, asking }: Case): Cause | null {
  if (asking.identity !== 'proven') return atLevel('identity', { kind: 'prove-address' });
  if (asking.recipient?.blocked === true) return atLevel('recipient', { kind: 'unblock' });
  if (policy.keyDestroyed) return atLevel('document', null);
  return policy.revoked ? atLevel('document', { kind: 'reinstate-document' }) : null;
}

/** The next thing that stands between a case and what is wanted of one grant; `null`: nothing does. */
export function causeFor(at: Case, grants: Grants, id: GrantId, wanted: Wanted): Cause | null {
  const above = causeAboveGrants(at);
  if (above !== null) return above;
  const chain = chainOf(grants, id);
  const compiled = compileDocument({ ...at.policy, grants: chain.links });
  const grant = allGrants(compiled).find(({ facts }) => facts.id === id);
  if (grant === undefined) return null;
  return (
    causeOfNotLive(grant, chain, compiled.ceilings, at.asking.at) ??
    (wanted === 'open' ? null : causeOfNoEffect(grant, chain, wanted, compiled.ceilings))
  );
}

/** The case with one grant and those above it alone. */
function onlyWith(at: Case, grants: Grants, id: GrantId): Case {
  return { ...at, policy: { ...at.policy, grants: chainOf(grants, id).links } };
}

/** All that has to be done for one grant to give what is wanted; `null`: nothing does it, or far too much. */
function changesFor(start: Case, id: GrantId, wanted: Wanted): readonly Change[] | null {
  const changes: Change[] = [];
  for (let at = start; changes.length <= MOST_CHANGES;) {
    const cause = causeFor(
      at,
      new Map(at.policy.grants.map((facts) => [facts.id, facts])),
      id,
      wanted,
    );
    if (cause === null) return changes;
    if (cause.change === null) return null;
    changes.push(cause.change);
    at = changed(at, cause.change);
  }
  return null;
}

/** The changes that are left when every one without which it works as well is left out. */
function needed(at: Case, changes: readonly Change[], wanted: Wanted): readonly Change[] {
  return changes.reduce<readonly Change[]>((kept, change) => {
    const fewer = kept.filter((each) => each !== change);
    return isGiven(decideCase(changedBy(at, fewer)), wanted) ? fewer : kept;
  }, changes);
}

/** What has to be done where none of their grants can be made to do: a new one is given to them. */
function changesAnew(at: Case, wanted: Wanted): readonly Change[] {
  if (at.asking.recipient === null) return [];
  const given: Change = { kind: 'give-access' };
  const rest = changesFor(onlyNew(changed(at, given)), NEW_GRANT, wanted);
  return rest === null ? [] : needed(at, [given, ...rest], wanted);
}

function onlyNew(at: Case): Case {
  return {
    ...at,
    policy: { ...at.policy, grants: at.policy.grants.filter(({ id }) => id === NEW_GRANT) },
  };
}

/**
 * The fewest changes that bring about what is wanted, by the first of these grants where several
 * take as few. Empty: nothing does.
 */
export function changesThatGive(
  at: Case,
  grants: Grants,
  ids: readonly GrantId[],
  wanted: Wanted,
): readonly Change[] {
  let fewest: readonly Change[] | null = null;
  for (const id of ids) {
    const found = changesFor(onlyWith(at, grants, id), id, wanted);
    if (found !== null && (fewest === null || found.length < fewest.length)) fewest = found;
  }
  return fewest === null ? changesAnew(at, wanted) : needed(at, fewest, wanted);
}

/**
 * The changes that take away what these live grants give, one for each; a grant that ends with one
 * above it needs none.
 */
export function changesThatTake(
  live: readonly CompiledGrant[],
  grants: Grants,
  wanted: Wanted,
): readonly Change[] {
  const giving = live
    .filter((grant) => wanted === 'open' || gives(grant, wanted))
    .map(({ facts }) => facts.id);
  const all = new Set(giving);
  const first = giving.filter(
    (id) =>
      !chainOf(grants, id)
        .links.slice(1)
        .some((above) => all.has(above.id)),
  );
  return first.map((grant) =>
    wanted === 'open'
      ? { kind: 'revoke-grant', grant }
      : { kind: 'take-right', grant, right: wanted },
  );
}
