import type { GrantId } from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import type { Ceiling, Origin } from '@/core/policy/ceiling';
import type { Conditions } from '@/core/policy/conditions';
import type { Addressee, CompiledDocument, CompiledGrant } from '@/core/policy/compile';
import { decide, grantsReaching, notLive, type Asking, type Decision, type NotLive, type RefusalReason, type RightVerdict } from '@/core/policy/decide';
import { RIGHTS, type Right } from '@/core/policy/rights';

/** What would change a result. */
export type Remedy =
  | 'prove-address' | 'unblock' | 'reinstate-document' | 'reinstate-grant' | 'extend-grant' | 'begin-sooner' | 'give-right' | 'give-more-prints' | 'unlimit-prints' | 'raise-ceiling' | 'change-condition'
  | 'give-access' | 'take-right' | 'revoke-grant' | 'nothing';

/** The rule behind a result: on which level it stands, who set it and when, and what would change it. */
export type Reason = {
  readonly level: 'identity' | 'recipient' | 'document' | 'grant' | Ceiling['level'];
  /** The marking, folder or document whose ceiling it is; the grant's id; or empty. */
  readonly subject: string;
  readonly setBy: string | null;
  readonly setAt: Moment | null;
  readonly remedy: Remedy;
};

/** One way in that a person has, live or not. */
export type Way = {
  readonly grant: GrantId;
  readonly addressee: Addressee;
  readonly parent: GrantId | null;
  readonly standing: 'live' | NotLive;
  readonly rights: readonly Right[];
  /** Rights that the grant gives and a ceiling takes. */
  readonly taken: readonly { readonly right: Right; readonly ceiling: Ceiling }[];
  readonly from: Moment | null;
  readonly until: Moment | null;
  readonly conditions: Conditions | null;
  /** Where the end comes from. */
  readonly endedBy: Origin;
  readonly givenBy: string;
  readonly givenAt: Moment;
};

export type Explanation = {
  readonly decision: Decision;
  /** Why the document opens, or does not. */
  readonly why: Reason;
  readonly rights: readonly { readonly right: Right; readonly verdict: RightVerdict | null; readonly reason: Reason }[];
  readonly ways: readonly Way[];
};

const REMEDIES: Readonly<Record<RefusalReason, Remedy>> = {
  'identity-not-proven': 'prove-address', 'prove-again': 'prove-address', 'not-addressed': 'give-access', 'recipient-blocked': 'unblock', 'document-revoked': 'reinstate-document', 'key-destroyed': 'nothing',
  'not-yet': 'begin-sooner', expired: 'extend-grant', revoked: 'reinstate-grant', 'device-not-accepted': 'change-condition', 'too-many-devices': 'change-condition', 'network-not-allowed': 'change-condition',
  'place-not-allowed': 'change-condition', 'hours-not-allowed': 'change-condition', 'opens-used-up': 'change-condition', 'condition-unknown': 'change-condition', 'read-not-allowed': 'give-right',
};

function ofCeiling({ level, subject, setBy, setAt }: Ceiling): Reason {
  return { level, subject, setBy, setAt, remedy: 'raise-ceiling' };
}

function ofGrant(grant: CompiledGrant | undefined, remedy: Remedy): Reason {
  return { level: 'grant', subject: grant?.facts.id ?? '', setBy: grant?.facts.givenBy ?? null, setAt: grant?.facts.givenAt ?? null, remedy };
}

/** The value that a refusal rests on, where a ceiling may have set it. */
function limitBehind(grant: CompiledGrant, reason: RefusalReason): Origin {
  const { origins } = grant.effective;
  if (reason === 'expired') return origins.until;
  if (reason === 'opens-used-up') return origins.opens;
  if (reason === 'place-not-allowed') return origins.countries;
  return reason === 'network-not-allowed' ? origins.networks : { from: 'grant' };
}

function whyRefused(grants: readonly CompiledGrant[], reason: RefusalReason, source: GrantId | null): Reason {
  const remedy = REMEDIES[reason];
  const grant = grants.find(({ facts }) => facts.id === source);
  if (grant !== undefined) {
    const behind = limitBehind(grant, reason);
    return behind.from === 'ceiling' ? ofCeiling(behind.ceiling) : ofGrant(grant, remedy);
  }
  const level = reason === 'identity-not-proven' ? 'identity' : reason === 'recipient-blocked' || reason === 'not-addressed' ? 'recipient' : 'document';
  return { level, subject: '', setBy: null, setAt: null, remedy };
}

function whyRight(right: Right, verdict: RightVerdict, live: readonly CompiledGrant[]): Reason {
  if (verdict.granted) return ofGrant(live.find(({ facts }) => facts.id === verdict.grant), 'take-right');
  const grant = live.find(({ facts }) => facts.id === verdict.source.grant);
  if (verdict.why === 'above-ceiling') {
    const ceiling = grant?.effective.taken.get(right);
    return ceiling === undefined ? ofGrant(grant, 'give-right') : ofCeiling(ceiling);
  }
  if (verdict.why === 'not-given') return ofGrant(grant, 'give-right');
  const prints = grant?.effective.origins.prints;
  if (prints?.from === 'ceiling') return ofCeiling(prints.ceiling);
  return ofGrant(grant, verdict.why === 'prints-used-up' ? 'give-more-prints' : 'unlimit-prints');
}

function wayOf(grant: CompiledGrant, standing: Way['standing']): Way {
  const { facts, effective, from, until } = grant;
  return {
    grant: facts.id, addressee: facts.addressee, parent: facts.parent ?? null, standing, rights: RIGHTS.filter((right) => grant.rights.has(right)),
    taken: [...effective.taken].map(([right, ceiling]) => ({ right, ceiling })), from: Number.isFinite(from) ? from : null, until: Number.isFinite(until) ? until : null,
    conditions: effective.terms.conditions ?? null, endedBy: effective.origins.until, givenBy: facts.givenBy, givenAt: facts.givenAt,
  };
}

/** A decision with the rule behind it and behind each right, and every way in that the person has, live ones first. */
export function explain(document: CompiledDocument, asking: Asking): Explanation {
  const decision = decide(document, asking);
  const grants = grantsReaching(document, asking);
  const standings = grants.map((grant) => notLive(grant, asking.at));
  const live = grants.filter((_, index) => standings[index] === null);
  const ways = grants.map((grant, index) => wayOf(grant, standings[index] ?? 'live')).sort((a, b) => Number(b.standing === 'live') - Number(a.standing === 'live'));
  if (decision.outcome === 'refused') {
    const why = whyRefused(grants, decision.reason, decision.source?.grant ?? null);
    return { decision, why, rights: RIGHTS.map((right) => ({ right, verdict: null, reason: why })), ways };
  }
  return {
    decision, why: ofGrant(live[0], 'revoke-grant'), ways,
    rights: RIGHTS.map((right) => ({ right, verdict: decision.rights[right], reason: whyRight(right, decision.rights[right], live) })),
  };
}
