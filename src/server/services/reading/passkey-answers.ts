import 'server-only';
import type { RecipientId } from '@/core/base/ids';
import { MINUTE } from '@/core/base/time';
import type { Details } from '@/core/ledger/details';
import {
  findPasskey,
  putPasskeyChallenge,
  takePasskeyChallenge,
  type PasskeyRow,
} from '@/server/repositories/reading/passkey-repository';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { recordAlone, whereabouts } from '@/server/services/base/record';
import { areOurs } from '@/server/services/base/trusted-rows';

const CHALLENGE_LASTS = 5 * MINUTE;

/** Keeps what a browser is to answer. @param holder the device, or the mark of a browser */
export async function keepChallenge(deps: Deps, holder: string, challenge: string): Promise<void> {
  const now = deps.clock.now();
  const expiresAt = now + CHALLENGE_LASTS;
  await deps.db.write((tx) => putPasskeyChallenge(tx, { holder, challenge, expiresAt }, now));
}

/** @throws ServiceError `INVALID` where the browser was asked nothing, or too long ago */
export async function needChallenge(deps: Deps, holder: string): Promise<string> {
  const challenge = await deps.db.write((tx) => takePasskeyChallenge(tx, holder, deps.clock.now()));
  if (challenge === null) throw new ServiceError('passkey-refused');
  return challenge;
}

/** What entries about a person's passkey have in common. */
export function about(
  deps: Deps,
  { address, from }: Pick<ReaderActor, 'address' | 'from'>,
  recipient: RecipientId | null,
  now: number,
) {
  return {
    occurredAt: now,
    ...(recipient === null ? {} : { recipient }),
    personal: { address, ...whereabouts(deps, from) },
  };
}

/** Tells of an answer that was not good. @throws ServiceError `INVALID`, always */
export async function refuse(
  deps: Deps,
  { address, from }: Pick<ReaderActor, 'address' | 'from'>,
  details: NonNullable<Details['passkey.used']>,
): Promise<never> {
  const recipient = await findRecipientByAddress(deps.db.read, address);
  await recordAlone(deps, {
    action: 'passkey.used',
    outcome: 'refused',
    reason: 'identity-not-proven',
    actor: { kind: 'stranger', id: null },
    ...about(deps, { address, from }, recipient?.id ?? null, deps.clock.now()),
    details,
  });
  throw new ServiceError('passkey-refused');
}

/** The passkey that answered, if it is one of ours. */
export async function knownPasskey(
  deps: Deps,
  answer: { readonly id: string },
): Promise<PasskeyRow | null> {
  const row = await findPasskey(deps.db.read, answer.id);
  return row !== null && (await areOurs(deps, deps.db.read, { passkeys: [row.id] })) ? row : null;
}
