import type { Moment } from '@/core/base/time';
import { domainOf } from '@/core/policy/address';
import type { Conditions, PassOn } from '@/core/policy/conditions';
import { standingTerms, type Right, type Terms } from '@/core/policy/rights';

/** What somebody wants to pass on of what they hold: to whom, which rights, until when. */
export type PassOnWish = {
  readonly address: string;
  readonly rights: readonly Right[];
  readonly until: Moment | null;
};

/** What they hold, as it comes out under every ceiling and grant above it. */
export type PassOnHeld = {
  readonly address: string;
  readonly terms: Terms;
  readonly printsLeft: number | null;
  /** To how many it was passed on already, those aside that were revoked. */ readonly passedOn: number;
};

export type PassOnRefusal =
  'not-given' | 'too-many' | 'not-listed' | 'more-rights' | 'longer' | 'themselves';

/** Why somebody cannot pass on so, or `null` where they can. */
export function passOnRefusal(
  { address, rights, until }: PassOnWish,
  held: PassOnHeld,
): PassOnRefusal | null {
  const limits = held.terms.conditions?.passOn;
  if (!held.terms.rights.includes('pass-on') || limits == null) return 'not-given';
  if (address === held.address) return 'themselves';
  if (limits.domains !== null && !limits.domains.includes(domainOf(address))) return 'not-listed';
  if (held.passedOn >= limits.people) return 'too-many';
  if (!areWithin(rights, held.terms.rights, limits)) return 'more-rights';
  const isLonger = held.terms.until !== null && (until === null || until > held.terms.until);
  return isLonger ? 'longer' : null;
}

/** Whether rights can be passed on of those held: Read among them, and Pass on only with a step left. */
function areWithin(rights: readonly Right[], held: readonly Right[], { steps }: PassOn): boolean {
  const isHeld = rights.every((right) => held.includes(right));
  const hasStep = !rights.includes('pass-on') || steps >= 2;
  return isHeld && hasStep && rights.includes('read');
}

/** One step further there is one less to go; nothing where this was the last. */
function nextStep({ people, domains, steps }: PassOn): PassOn | null {
  return steps < 2 ? null : { people, domains, steps: steps - 1 };
}

/**
 * Within what a grant can be passed on that was itself passed on: its own bounds, and one step less
 * than those above.
 */
export function passOnWithin(own: PassOn | null, above: PassOn | null): PassOn | null {
  const next = above === null ? null : nextStep(above);
  if (own === null || next === null) return null;
  const domains =
    own.domains === null || next.domains === null
      ? (own.domains ?? next.domains)
      : own.domains.filter((domain) => next.domains?.includes(domain));
  return {
    people: Math.min(own.people, next.people),
    domains,
    steps: Math.min(own.steps, next.steps),
  };
}

/**
 * The terms of a grant that is passed on: never more than what it is passed on from, whose
 * conditions hold for it as well.
 */
export function passedOnTerms(
  { rights, until }: PassOnWish,
  { terms, printsLeft }: PassOnHeld,
): Terms {
  const { passOn, ...others } = terms.conditions ?? {};
  const next = passOn == null || !rights.includes('pass-on') ? null : nextStep(passOn);
  const conditions: Conditions = { ...others, ...(next === null ? {} : { passOn: next }) };
  const wanted = rights.filter(
    (right) => terms.rights.includes(right) && (right !== 'pass-on' || next !== null),
  );
  const given: Terms = {
    rights: wanted,
    from: terms.from,
    until: until ?? terms.until,
    prints: wanted.includes('print') ? printsLeft : null,
    ...(Object.keys(conditions).length === 0 ? {} : { conditions }),
  };
  return standingTerms(given);
}
