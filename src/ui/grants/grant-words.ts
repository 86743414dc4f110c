import type { GrantRow } from '@/contracts/dispatch';
import { windowState } from '@/core/policy/decide';

export type GrantState =
  'live' | 'not-yet' | 'expired' | 'revoked' | 'document-revoked' | 'blocked' | 'destroyed';

/** A grant as it comes out under the ceilings, for whatever shows what is; changes start from what was given. */
export function underCeilings(grant: GrantRow): GrantRow {
  return grant.capped === null ? grant : { ...grant, ...grant.capped };
}

/** The state of a grant now, by the rule that also decides. */
export function stateOf(grant: GrantRow, now: number): GrantState {
  if (grant.keyDestroyed) return 'destroyed';
  if (grant.blocked) return 'blocked';
  if (grant.documentRevoked) return 'document-revoked';
  return (
    windowState(
      {
        revoked: grant.revokedAt !== null,
        terms: { from: grant.from, until: underCeilings(grant).until },
      },
      now,
    ) ?? 'live'
  );
}

export const stateWords: Record<GrantState, string> = {
  live: 'can open',
  'not-yet': 'not yet',
  expired: 'expired',
  revoked: 'revoked',
  'document-revoked': 'document revoked',
  blocked: 'blocked',
  destroyed: 'key destroyed',
};

/** How a state stands out in a list. */
export const stateTone: Record<GrantState, string | undefined> = {
  live: undefined,
  'not-yet': 'lamp',
  expired: 'quiet',
  revoked: 'magenta',
  'document-revoked': 'magenta',
  blocked: 'magenta',
  destroyed: 'magenta',
};

/** Whom a person is called in a list. */
export function personName({ name, address }: Pick<GrantRow, 'name' | 'address'>): string {
  return name === '' ? address : name;
}
