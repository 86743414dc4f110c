import type { GrantId } from '@/core/base/ids';
import { NO_LIMITS, type Ceiling, type Limits } from '@/core/policy/ceiling';
import type { DocumentPolicy, GrantFacts } from '@/core/policy/compile';
import { isKnownCondition } from '@/core/policy/condition-effects';
import { UNUSED, type Conditions } from '@/core/policy/conditions';
import type { Asking } from '@/core/policy/decide';
import type { Right, Terms } from '@/core/policy/rights';

/** One thing that somebody can do about a decision. `unknown`: a condition that this version does not know. */
export type Change =
  | {
      readonly kind:
        'prove-address' | 'use-passkey' | 'unblock' | 'reinstate-document' | 'give-access';
    }
  | {
      readonly kind:
        | 'reinstate-grant'
        | 'extend-grant'
        | 'begin-sooner'
        | 'give-more-prints'
        | 'unlimit-prints'
        | 'revoke-grant';
      readonly grant: GrantId;
    }
  | { readonly kind: 'give-right' | 'take-right'; readonly grant: GrantId; readonly right: Right }
  | {
      readonly kind: 'change-condition';
      readonly grant: GrantId;
      readonly condition: keyof Conditions | 'unknown';
    }
  | { readonly kind: 'raise-ceiling'; readonly ceiling: Ceiling; readonly limit: keyof Limits };

/** A policy and who asks about it. */
export type Case = { readonly policy: DocumentPolicy; readonly asking: Asking };

/** As far as anything can be passed on. */
const FREELY = { people: Number.MAX_SAFE_INTEGER, domains: null, steps: Number.MAX_SAFE_INTEGER };
/** Where nobody has asked yet. */
const A_DEVICE = { id: 'a device', kept: true, passkeyAt: null };
/** What the grant is called that somebody would be given. */
export const NEW_GRANT: GrantId = 'grt_given-to-them';

function onGrant(
  { policy, asking }: Case,
  id: GrantId,
  change: (grant: GrantFacts) => GrantFacts,
): Case {
  return {
    asking,
    policy: {
      ...policy,
      grants: policy.grants.map((grant) => (grant.id === id ? change(grant) : grant)),
    },
  };
}

function onTerms(at: Case, id: GrantId, change: (terms: Terms) => Terms): Case {
  return onGrant(at, id, (grant) => ({ ...grant, terms: change(grant.terms) }));
}

function withoutCondition(
  { conditions = {}, ...terms }: Terms,
  condition: keyof Conditions | 'unknown',
): Terms {
  if (condition === 'passOn') return { ...terms, conditions: { ...conditions, passOn: FREELY } };
  const kept = Object.entries(conditions).filter(([name]) =>
    condition === 'unknown' ? isKnownCondition(name) : name !== condition,
  );
  return { ...terms, conditions: Object.fromEntries(kept) };
}

function withRight(terms: Terms, right: Right): Terms {
  const given = { ...terms, rights: [...terms.rights, right] };
  return right === 'pass-on' && terms.conditions?.passOn == null
    ? withoutCondition(given, 'passOn')
    : given;
}

function proven({ asking, policy }: Case): Case {
  const { device, now } = asking.at;
  const known = device === null || device === 'any' ? A_DEVICE : device;
  return {
    policy,
    asking: {
      ...asking,
      identity: 'proven',
      at: { ...asking.at, device: device === 'any' ? device : { ...known, provenAt: now } },
    },
  };
}

function withPasskey({ policy, asking }: Case): Case {
  const { device, now } = asking.at;
  // A passkey proves no mailbox.
  const known = device ?? { ...A_DEVICE, provenAt: Number.NEGATIVE_INFINITY };
  const used = known === 'any' ? known : { ...known, passkeyAt: now };
  return { policy, asking: { ...asking, at: { ...asking.at, device: used } } };
}

function given({ policy, asking }: Case): Case {
  if (asking.recipient === null) return { policy, asking };
  const { now } = asking.at;
  const terms: Terms = { rights: ['read'], from: null, until: null, prints: null };
  const grant: GrantFacts = {
    id: NEW_GRANT,
    addressee: { kind: 'person', id: asking.recipient.id },
    terms,
    revoked: false,
    used: UNUSED,
    givenBy: 'stf_',
    givenAt: now,
  };
  return { asking, policy: { ...policy, grants: [...policy.grants, grant] } };
}

function morePrints(grant: GrantFacts): GrantFacts {
  return { ...grant, terms: { ...grant.terms, prints: grant.used.prints + 1 } };
}

function raised(at: Case, ceiling: Ceiling, limit: keyof Limits): Case {
  const ceilings = at.policy.ceilings.map((each) =>
    each.level === ceiling.level && each.subject === ceiling.subject
      ? { ...each, limits: { ...each.limits, [limit]: NO_LIMITS[limit] } }
      : each,
  );
  return { ...at, policy: { ...at.policy, ceilings } };
}

/** Of several kinds of change, the one that can have this name. */
export type ChangeOf<C extends Change, K> = C extends unknown
  ? K extends C['kind']
    ? C
    : never
  : never;

type Carried = { [K in Change['kind']]: (at: Case, change: ChangeOf<Change, K>) => Case };

/** What each change makes of a case. */
const CARRIED: Carried = {
  'prove-address': (at) => proven(at),
  'use-passkey': (at) => withPasskey(at),
  unblock: (at) => {
    const { recipient } = at.asking;
    const unblocked = recipient === null ? null : { ...recipient, blocked: false };
    return { ...at, asking: { ...at.asking, recipient: unblocked } };
  },
  'reinstate-document': (at) => ({ ...at, policy: { ...at.policy, revoked: false } }),
  'give-access': (at) => given(at),
  'reinstate-grant': (at, { grant }) =>
    onGrant(at, grant, (before) => ({ ...before, revoked: false })),
  'revoke-grant': (at, { grant }) => onGrant(at, grant, (before) => ({ ...before, revoked: true })),
  'extend-grant': (at, { grant }) => onTerms(at, grant, (terms) => ({ ...terms, until: null })),
  'begin-sooner': (at, { grant }) => onTerms(at, grant, (terms) => ({ ...terms, from: null })),
  'give-more-prints': (at, { grant }) => onGrant(at, grant, morePrints),
  'unlimit-prints': (at, { grant }) => onTerms(at, grant, (terms) => ({ ...terms, prints: null })),
  'give-right': (at, { grant, right }) => onTerms(at, grant, (terms) => withRight(terms, right)),
  'take-right': (at, { grant, right }) =>
    onTerms(at, grant, (terms) => ({
      ...terms,
      rights: terms.rights.filter((each) => each !== right),
    })),
  'change-condition': (at, { grant, condition }) =>
    onTerms(at, grant, (terms) => withoutCondition(terms, condition)),
  'raise-ceiling': (at, { ceiling, limit }) => raised(at, ceiling, limit),
};

/** The case as it is once somebody has done this. What is extended or raised is so without a limit. */
export function changed(at: Case, change: Change): Case {
  return CARRIED[change.kind](at, change as never);
}

/** The case as it is once all of this was done. */
export function changedBy(at: Case, changes: readonly Change[]): Case {
  return changes.reduce(changed, at);
}
