import type { GrantRow } from '@/contracts/dispatch';
import { notLive } from '@/core/policy/decide';

export type GrantState = 'live' | 'not-yet' | 'expired' | 'revoked' | 'document-revoked' | 'blocked' | 'destroyed';

/** The state of a grant now, by the rule that also decides. */
export function stateOf(grant: GrantRow, now: number): GrantState {
  if (grant.keyDestroyed) return 'destroyed';
  if (grant.blocked) return 'blocked';
  if (grant.documentRevoked) return 'document-revoked';
  const facts = { id: grant.id, terms: grant, revoked: grant.revokedAt !== null, printsMade: grant.printsMade, givenBy: 'stf_' as const, givenAt: grant.givenAt };
  return notLive(facts, now) ?? 'live';
}

export const stateWords: Record<GrantState, string> = { live: 'can open', 'not-yet': 'not yet', expired: 'ended', revoked: 'revoked', 'document-revoked': 'document revoked', blocked: 'blocked', destroyed: 'key destroyed' };

/** Whom a person is called in a list. */
export function personName({ name, address }: Pick<GrantRow, 'name' | 'address'>): string {
  return name === '' ? address : name;
}
