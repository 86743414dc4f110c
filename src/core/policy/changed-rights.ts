import { withNeeds, RIGHTS, standingTerms, type Right } from '@/core/policy/rights';

/** The rights of one grant and how many prints it has; `null`: no limit. */
export type HeldRights = { readonly rights: readonly Right[]; readonly prints: number | null };

/** How rights are changed for several grants: alike for all, or with what each has left as it is. */
export type RightsChange =
  | ({ readonly how: 'set' } & HeldRights)
  | ({ readonly how: 'add' } & HeldRights)
  | { readonly how: 'take'; readonly rights: readonly Right[] };

function inOrder(rights: Iterable<Right>): Right[] {
  const has = new Set(rights);
  return RIGHTS.filter((right) => has.has(right));
}

/**
 * Rights with others added, and what these rest on. Who may print already keeps the number of
 * prints they have: the number is for those who may not yet.
 */
function withAdded(held: HeldRights, added: HeldRights): HeldRights {
  const rights = new Set([...held.rights, ...added.rights]);
  const prints = held.rights.includes('print') ? held.prints : added.prints;
  const terms = withNeeds({ rights: [...rights], prints, from: null, until: null });
  return { rights: inOrder(terms.rights), prints: terms.prints };
}

/** What a grant has after a change: of rights that cannot stand without one that goes, none is left. */
export function changedRights(held: HeldRights, change: RightsChange): HeldRights {
  if (change.how === 'set') return { rights: inOrder(change.rights), prints: change.prints };
  if (change.how === 'add') return withAdded(held, change);
  const rights = held.rights.filter((right) => right === 'read' || !change.rights.includes(right));
  const prints = rights.includes('print') ? held.prints : null;
  const left = standingTerms({ rights, prints, from: null, until: null });
  return { rights: inOrder(left.rights), prints };
}
