import 'server-only';
import type { EnterByPasskeyInput, PasskeyAsked } from '@/contracts/passkeys';
import { askToUse, usedPasskey } from '@/server/identity/passkey-proof';
import { networkKey } from '@/server/limits/limits';
import { countPasskey } from '@/server/repositories/reading/passkey-repository';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import type { Deps, StrangerActor } from '@/server/services/base/deps';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';
import { KEPT_LASTS, makeDevice, needDeviceKey } from '@/server/services/reading/make-device';
import {
  about,
  keepChallenge,
  knownPasskey,
  needChallenge,
  refuse,
} from '@/server/services/reading/passkey-answers';

/** A browser that has proven nothing asks for whichever passkey it has. @throws ServiceError `TOO_MANY` */
export async function beginEntering(
  deps: Deps,
  actor: StrangerActor,
): Promise<Extract<PasskeyAsked, { readonly kind: 'use' }>> {
  const wait = await deps.limits.guessesByNetwork(networkKey(actor.from.network));
  if (wait > 0) throw tooMany(wait);
  const options = await askToUse(deps.publicUrl, []);
  await keepChallenge(deps, deps.vault.mac('browser', actor.browser), options.challenge);
  return { kind: 'use', options };
}

/**
 * Comes in by a passkey in place of a code. Where terms ask for the address to be proven from time to
 * time, what counts is still when a code was entered last: a mailbox may have been lost since.
 *
 * @throws ServiceError `INVALID` where the answer is not good, or nothing was asked; `TOO_MANY`
 */
export async function enterByPasskey(
  deps: Deps,
  actor: StrangerActor,
  { answer, kept, publicKey }: EnterByPasskeyInput,
): Promise<{
  readonly deviceToken: string;
  readonly maxAge: number | null;
  readonly address: string;
}> {
  const wait = await deps.limits.guessesByNetwork(networkKey(actor.from.network));
  if (wait > 0) throw tooMany(wait);
  needDeviceKey(publicKey);
  const challenge = await needChallenge(deps, deps.vault.mac('browser', actor.browser));
  const row = await knownPasskey(deps, answer);
  if (row === null) throw new ServiceError('passkey-refused');
  const { address, provenAt } = row;
  const details = { passkey: row.label, inPlaceOfCode: true } as const;
  const used = await usedPasskey(deps.publicUrl, answer, challenge, row);
  if (used === null) return refuse(deps, { address, from: actor.from }, details);
  const now = deps.clock.now();
  const recipient = (await findRecipientByAddress(deps.db.read, address))?.id ?? null;
  const deviceToken = await deps.db.write(async (tx) => {
    await countPasskey(tx, row.id, used.counter, now);
    const { agent } = actor.from;
    const by = { address, recipient, agent, kept, publicKey, provenAt, passkeyAt: now };
    const { device, deviceToken: token } = await makeDevice(deps, tx, by, now);
    await record(deps, tx, {
      action: 'passkey.used',
      outcome: 'granted',
      actor:
        recipient === null ? { kind: 'stranger', id: null } : { kind: 'recipient', id: recipient },
      device,
      ...about(deps, { address, from: actor.from }, recipient, now),
      details,
    });
    return token;
  });
  return { deviceToken, maxAge: kept ? KEPT_LASTS / 1000 : null, address };
}
