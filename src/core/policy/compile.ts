import type { DocumentId, GrantId, StaffId } from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import { underCeilings, type Ceiling, type Effective } from '@/core/policy/ceiling';
import { LEVELS } from '@/core/policy/levels';
import {
  boundsOf,
  boundsWithin,
  conditionsEnd,
  conditionTest,
  type Bounds,
} from '@/core/policy/condition-effects';
import type { Conditions, ConditionTest, Used } from '@/core/policy/conditions';
import type { Right, Terms } from '@/core/policy/rights';

/** Who a grant is for: a person, a live group, every address at a domain, or anyone who holds an open link. */
export type Addressee = {
  readonly kind: 'person' | 'group' | 'domain' | 'link';
  readonly id: string;
};

export type GrantFacts = {
  readonly id: GrantId;
  readonly addressee: Addressee;
  /** The grant this one was passed on from: it never has more, and ends with it. */
  readonly parent?: GrantId | null | undefined;
  readonly terms: Terms;
  readonly revoked: boolean;
  /** When it was revoked, where that is known; only told, nothing is decided by it. */
  readonly revokedAt?: Moment | null;
  readonly used: Used;
  readonly givenBy: StaffId;
  readonly givenAt: Moment;
};

/** Everything that decides about one document, in any order. */
export type DocumentPolicy = {
  readonly id: DocumentId;
  readonly revoked: boolean;
  /** When it was revoked, where that is known; only told. */
  readonly revokedAt?: Moment | null;
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
  /** Opens that are left, in all; `null`: as many as wanted. */
  readonly opensLeft: number | null;
  readonly bounds: Bounds;
  /** How many of its rights have an effect, now. */
  readonly worth: number;
};

export type CompiledDocument = Omit<DocumentPolicy, 'grants'> & {
  /** By what they are for and by its id, each list in the order of charging: looking up puts no text together. */
  readonly byAddressee: Readonly<
    Record<Addressee['kind'], ReadonlyMap<string, readonly CompiledGrant[]>>
  >;
};

type Giving = Pick<CompiledGrant, 'rights' | 'printsLeft' | 'bounds'>;

/**
 * Whether a grant gives this right an effect. A kept file can be printed at will, so it needs
 * unlimited prints, also of the grant above; printing needs one that is left; passing on needs
 * somebody it may be passed on to.
 */
export function gives(grant: Giving, right: Right): boolean {
  const { rights, printsLeft, bounds } = grant;
  if (!rights.has(right)) return false;
  // Who may not have the file cannot change it.
  if (right === 'revise') return gives(grant, 'keep');
  if (right === 'keep') return rights.has('copy') && rights.has('print') && printsLeft === null;
  if (right === 'print') return printsLeft !== 0;
  return right !== 'pass-on' || bounds.passOn !== null;
}

function worthOf(grant: Giving): number {
  let worth = 0;
  for (const right of grant.rights) if (gives(grant, right)) worth++;
  return worth;
}

/**
 * Most rights that have an effect first, then latest end, then oldest; the id settles the rest, so
 * that order never matters.
 */
export function byCharge(a: CompiledGrant, b: CompiledGrant): number {
  if (a.worth !== b.worth) return b.worth - a.worth;
  if (a.until !== b.until) return a.until > b.until ? -1 : 1;
  return a.facts.givenAt - b.facts.givenAt || (a.facts.id < b.facts.id ? -1 : 1);
}

function inOrder(ceilings: readonly Ceiling[]): Ceiling[] {
  return [...ceilings].sort(
    (a, b) =>
      LEVELS.indexOf(a.level) - LEVELS.indexOf(b.level) ||
      a.setAt - b.setAt ||
      (a.subject < b.subject ? -1 : 1),
  );
}

/** A grant under its ceilings, whatever it was passed on from. */
export function compileAlone(facts: GrantFacts, ceilings: readonly Ceiling[]): CompiledGrant {
  const { terms, alsoWithin, ...rest } = underCeilings(facts.terms, facts.givenAt, ceilings);
  const conditions = terms.conditions ?? {};
  const test = conditionTest(conditions, alsoWithin);
  const giving: Giving = {
    rights: new Set(terms.rights),
    printsLeft: terms.prints === null ? null : Math.max(0, terms.prints - facts.used.prints),
    bounds: boundsOf(conditions),
  };
  return {
    facts,
    effective: { terms, ...rest },
    from: terms.from ?? Number.NEGATIVE_INFINITY,
    until: Math.min(terms.until ?? Number.POSITIVE_INFINITY, conditionsEnd(conditions, facts.used)),
    revoked: facts.revoked,
    tests: test === null ? [] : [{ test, used: facts.used }],
    opensLeft: opensLeft(facts, conditions),
    ...giving,
    worth: worthOf(giving),
  };
}

function opensLeft({ used }: GrantFacts, { opens }: Conditions): number | null {
  return opens == null ? null : Math.max(0, opens - used.opens);
}

function leastOf(a: number | null, b: number | null): number | null {
  return a === null || b === null ? (a ?? b) : Math.min(a, b);
}

/** A grant that was passed on, within the one it came from. */
function within(own: CompiledGrant, parent: CompiledGrant): CompiledGrant {
  const giving: Giving = {
    rights: parent.rights.has('pass-on')
      ? new Set([...own.rights].filter((right) => parent.rights.has(right)))
      : new Set(),
    printsLeft: leastOf(own.printsLeft, parent.printsLeft),
    bounds: boundsWithin(own.bounds, parent.bounds),
  };
  return {
    ...own,
    ...giving,
    opensLeft: leastOf(own.opensLeft, parent.opensLeft),
    worth: worthOf(giving),
    from: Math.max(own.from, parent.from),
    until: Math.min(own.until, parent.until),
    revoked: own.revoked || parent.revoked,
    tests: [...own.tests, ...parent.tests],
  };
}

/** A grant whose chain of passing on is broken or runs in a circle. */
function givingNothing(own: CompiledGrant): CompiledGrant {
  return { ...own, rights: new Set(), worth: 0 };
}

/** Compiles grants, each after the one it was passed on from: one walk up each chain, then down again. */
function compileGrants(
  grants: readonly GrantFacts[],
  ceilings: readonly Ceiling[],
): ReadonlyMap<GrantId, CompiledGrant> {
  const facts = new Map(grants.map((grant) => [grant.id, grant]));
  const done = new Map<GrantId, CompiledGrant>();
  /** Those that do not lead to a grant which nobody passed on. */
  const broken = new Set<GrantId>();
  for (const grant of grants) {
    const { chain, end } = chainOf(grant, facts, done);
    const isBroken =
      end === undefined || broken.has(end.id) || (end.parent != null && chain.has(end.id));
    for (const each of [...chain.values()].reverse()) {
      const own = compileAlone(each, ceilings);
      const parent = each.parent == null ? undefined : done.get(each.parent);
      if (isBroken) {
        broken.add(each.id);
        done.set(each.id, givingNothing(own));
      } else done.set(each.id, parent === undefined ? own : within(own, parent));
    }
  }
  return done;
}

/**
 * The grants from one up to what it was passed on from first, or to one that is compiled already;
 * and the one at which that ends: undefined where a grant above is missing.
 */
function chainOf(
  grant: GrantFacts,
  facts: ReadonlyMap<GrantId, GrantFacts>,
  done: ReadonlyMap<GrantId, CompiledGrant>,
): {
  readonly chain: ReadonlyMap<GrantId, GrantFacts>;
  readonly end: GrantFacts | undefined;
} {
  const chain = new Map<GrantId, GrantFacts>();
  let at: GrantFacts | undefined = grant;
  while (at !== undefined && !done.has(at.id) && !chain.has(at.id)) {
    chain.set(at.id, at);
    if (at.parent == null) break;
    at = facts.get(at.parent);
  }
  return { chain, end: at };
}

/**
 * Compiles what decides about a document, once for many decisions. Grants whose chain of passing on
 * is broken or runs in a circle give nothing.
 */
export function compileDocument({
  grants,
  ceilings,
  ...document
}: DocumentPolicy): CompiledDocument {
  const ordered = inOrder(ceilings);
  const compiled = compileGrants(grants, ordered);
  const byAddressee = {
    person: new Map<string, CompiledGrant[]>(),
    group: new Map<string, CompiledGrant[]>(),
    domain: new Map<string, CompiledGrant[]>(),
    link: new Map<string, CompiledGrant[]>(),
  };
  for (const grant of grants) {
    const { kind, id } = grant.addressee;
    const own = compiled.get(grant.id);
    if (own === undefined) continue;
    const there = byAddressee[kind].get(id);
    if (there === undefined) byAddressee[kind].set(id, [own]);
    else there.push(own);
  }
  for (const lists of Object.values(byAddressee))
    for (const list of lists.values()) list.sort(byCharge);
  return { ...document, ceilings: ordered, byAddressee };
}

/** Every grant of a document as it comes out. */
export function allGrants({ byAddressee }: CompiledDocument): readonly CompiledGrant[] {
  return Object.values(byAddressee).flatMap((lists) => [...lists.values()].flat());
}
