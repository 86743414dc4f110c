import type { GrantId } from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import type { Json } from '@/core/ledger/canonical';
import type { Action, Entry } from '@/core/ledger/entry';
import { NO_LIMITS, type Ceiling, type Limits } from '@/core/policy/ceiling';
import { LEVELS, type Level } from '@/core/policy/levels';
import { parseTerms, type Terms } from '@/core/policy/rights';

/** A grant as it stood. */
export type PastGrant = { readonly terms: Terms; readonly revokedAt: Moment | null };

/** What the ledger says of access to one document at the end of some entries. */
export type PastAccess = {
  readonly grants: ReadonlyMap<GrantId, PastGrant>;
  readonly revokedAt: Moment | null;
  readonly keyDestroyed: boolean;
};

/** The entries that `pastAccess` reads. */
export const ACCESS_ACTIONS = [
  'grant.given',
  'grant.changed',
  'grant.revoked',
  'grant.reinstated',
  'document.revoked',
  'document.reinstated',
  'key.destroyed',
] as const satisfies readonly Action[];

type ReadEntry = Pick<Entry, 'action' | 'grant' | 'occurredAt' | 'details'>;

/**
 * Rebuilds how grants on one document, and the document itself, stood after these entries. A grant
 * that none of them gives did not exist yet.
 */
export function pastAccess(entries: Iterable<ReadEntry>): PastAccess {
  const grants = new Map<GrantId, PastGrant>();
  let revokedAt: Moment | null = null;
  let keyDestroyed = false;
  for (const { action, grant, occurredAt, details } of entries) {
    const at = Date.parse(occurredAt);
    if (action === 'document.revoked') revokedAt = at;
    if (action === 'document.reinstated') revokedAt = null;
    if (action === 'key.destroyed') keyDestroyed = true;
    if (grant === null) continue;
    const after = afterEntry(grants.get(grant), action, at, details['terms']);
    if (after !== undefined) grants.set(grant, after);
  }
  return { grants, revokedAt, keyDestroyed };
}

/** A grant after one entry about it; undefined where it did not exist by then. */
function afterEntry(
  before: PastGrant | undefined,
  action: Action,
  at: Moment,
  terms: Json | undefined,
): PastGrant | undefined {
  const isStated = action === 'grant.given' || action === 'grant.changed';
  if (isStated && typeof terms === 'string')
    return { terms: parseTerms(terms), revokedAt: before?.revokedAt ?? null };
  if (before === undefined) return undefined;
  if (action === 'grant.revoked') return { ...before, revokedAt: at };
  if (action === 'grant.reinstated') return { ...before, revokedAt: null };
  return before;
}

type CeilingEntry = Pick<Entry, 'actor' | 'occurredAt' | 'details'>;

function isLevel(value: unknown): value is Level {
  return LEVELS.some((level) => level === value);
}

/** The ceilings that stood after these `ceiling.changed` entries. */
export function pastCeilings(entries: Iterable<CeilingEntry>): Ceiling[] {
  const standing = new Map<string, Ceiling>();
  for (const {
    actor,
    occurredAt,
    details: { level, subject, limits },
  } of entries) {
    if (!isLevel(level) || typeof subject !== 'string') continue;
    const key = `${level} ${subject}`;
    if (limits === null) standing.delete(key);
    else
      standing.set(key, {
        level,
        subject,
        limits: { ...NO_LIMITS, ...(limits as Partial<Limits>) },
        setBy: actor.id ?? '',
        setAt: Date.parse(occurredAt),
      });
  }
  return [...standing.values()];
}
