import type { DocumentId, GrantId, StaffId } from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import { underCeilings, type Ceiling, type Effective } from '@/core/policy/ceiling';
import { LEVELS } from '@/core/policy/levels';
import { conditionTest, type ConditionTest, type Used } from '@/core/policy/conditions';
import type { Right, Terms } from '@/core/policy/rights';

/** Who a grant is for: a person, a live group, every address at a domain, or whoever holds an open link. */
export type Addressee = { readonly kind: 'person' | 'group' | 'domain' | 'link'; readonly id: string };

export type GrantFacts = {
  readonly id: GrantId;
  readonly addressee: Addressee;
  /** The grant this one was passed on from: it never has more, and ends with it. */
  readonly parent?: GrantId | null | undefined;
  readonly terms: Terms;
  readonly revoked: boolean;
  readonly used: Used;
  readonly givenBy: StaffId;
  readonly givenAt: Moment;
};

/** Everything that decides about one document, in any order. */
export type DocumentPolicy = {
  readonly id: DocumentId;
  readonly revoked: boolean;
  readonly keyDestroyed: boolean;
  readonly ceilings: readonly Ceiling[];
  readonly grants: readonly GrantFacts[];
};

/** A grant as it comes out under its ceilings and the grants above it. */
export type CompiledGrant = {
  readonly facts: GrantFacts;
  readonly effective: Effective;
  readonly rights: ReadonlySet<Right>;
  /** The window is [from, until), in ms; without an end it is Infinity. */
  readonly from: number;
  readonly until: number;
  readonly revoked: boolean;
  readonly tests: readonly { readonly test: ConditionTest; readonly used: Used }[];
  /** `null`: as many as wanted. */
  readonly printsLeft: number | null;
};

export type CompiledDocument = Omit<DocumentPolicy, 'grants'> & {
  /** By what they are for and by its id, each list in the order of charging: looking up puts no text together. */
  readonly byAddressee: Readonly<Record<Addressee['kind'], ReadonlyMap<string, readonly CompiledGrant[]>>>;
};

/** Most rights first, then latest end, then oldest; the id settles the rest, so that order never matters. */
export function byCharge(a: CompiledGrant, b: CompiledGrant): number {
  if (a.rights.size !== b.rights.size) return b.rights.size - a.rights.size;
  if (a.until !== b.until) return a.until > b.until ? -1 : 1;
  return a.facts.givenAt - b.facts.givenAt || (a.facts.id < b.facts.id ? -1 : 1);
}

function inOrder(ceilings: readonly Ceiling[]): Ceiling[] {
  return [...ceilings].sort((a, b) => LEVELS.indexOf(a.level) - LEVELS.indexOf(b.level) || a.setAt - b.setAt || (a.subject < b.subject ? -1 : 1));
}

/** The end that the window and the time since the first open come to. */
function endOf({ until, conditions }: Terms, { firstOpenedAt }: Used): number {
  const end = until ?? Number.POSITIVE_INFINITY;
  return conditions?.within == null || firstOpenedAt === null ? end : Math.min(end, firstOpenedAt + conditions.within);
}

function compileAlone(facts: GrantFacts, ceilings: readonly Ceiling[]): CompiledGrant {
  const { terms, alsoWithin, ...rest } = underCeilings(facts.terms, facts.givenAt, ceilings);
  const test = conditionTest(terms.conditions ?? {}, alsoWithin);
  return {
    facts, effective: { terms, ...rest }, rights: new Set(terms.rights), from: terms.from ?? Number.NEGATIVE_INFINITY, until: endOf(terms, facts.used), revoked: facts.revoked, tests: test === null ? [] : [{ test, used: facts.used }],
    printsLeft: terms.prints === null ? null : Math.max(0, terms.prints - facts.used.prints),
  };
}

function leastPrints(a: number | null, b: number | null): number | null {
  return a === null || b === null ? (a ?? b) : Math.min(a, b);
}

/** A grant that was passed on, within the one it came from. */
function within(own: CompiledGrant, parent: CompiledGrant): CompiledGrant {
  return {
    ...own,
    rights: parent.rights.has('pass-on') ? new Set([...own.rights].filter((right) => parent.rights.has(right))) : new Set(),
    from: Math.max(own.from, parent.from), until: Math.min(own.until, parent.until), revoked: own.revoked || parent.revoked,
    tests: [...own.tests, ...parent.tests], printsLeft: leastPrints(own.printsLeft, parent.printsLeft),
  };
}

/** Whether the chain of passing on leads to a grant that nobody passed on. */
function endsAtRoot(grant: GrantFacts, facts: ReadonlyMap<GrantId, GrantFacts>): boolean {
  const seen = new Set<GrantId>();
  for (let at: GrantFacts | undefined = grant; at !== undefined; at = facts.get(at.parent)) {
    if (at.parent == null) return true;
    if (seen.has(at.id)) return false;
    seen.add(at.id);
  }
  return false;
}

/** Compiles what decides about a document, once for many decisions. Grants whose chain of passing on is broken or runs in a circle give nothing. */
export function compileDocument({ grants, ceilings, ...document }: DocumentPolicy): CompiledDocument {
  const ordered = inOrder(ceilings);
  const facts = new Map(grants.map((grant) => [grant.id, grant]));
  const done = new Map<GrantId, CompiledGrant>();
  const compile = (grant: GrantFacts): CompiledGrant => {
    const known = done.get(grant.id);
    if (known !== undefined) return known;
    const own = compileAlone(grant, ordered);
    let compiled = own;
    if (grant.parent != null) {
      const parent = facts.get(grant.parent);
      compiled = parent !== undefined && endsAtRoot(grant, facts) ? within(own, compile(parent)) : { ...own, rights: new Set<Right>() };
    }
    done.set(grant.id, compiled);
    return compiled;
  };
  const byAddressee = { person: new Map<string, CompiledGrant[]>(), group: new Map<string, CompiledGrant[]>(), domain: new Map<string, CompiledGrant[]>(), link: new Map<string, CompiledGrant[]>() };
  for (const grant of grants) {
    const { kind, id } = grant.addressee;
    const there = byAddressee[kind].get(id);
    if (there === undefined) byAddressee[kind].set(id, [compile(grant)]);
    else there.push(compile(grant));
  }
  for (const lists of Object.values(byAddressee)) for (const list of lists.values()) list.sort(byCharge);
  return { ...document, ceilings: ordered, byAddressee };
}
