import 'server-only';
import { newId, type Id, type RecipientId } from '@/core/base/ids';
import { utf8 } from '@/core/base/bytes';
import { MINUTE } from '@/core/base/time';
import { deviceLabel } from '@/core/insight/device-label';
import { PASSKEY_HOLDS } from '@/core/policy/conditions';
import type { FinishPasskeyInput, OwnPasskey, PasskeyAsked } from '@/contracts/passkeys';
import { askToMake, askToUse, madePasskey, usedPasskey } from '@/server/identity/passkey-proof';
import { networkKey } from '@/server/limits/limits';
import { findPerson } from '@/server/repositories/people/people-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import {
  countPasskey,
  endPasskey,
  forgetPasskeyUses,
  insertPasskey,
  listPasskeys,
  notePasskeyAt,
  passkeysOf,
} from '@/server/repositories/reading/passkey-repository';
import type { Deps, ReaderActor, StaffActor } from '@/server/services/base/deps';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { actorOf, record } from '@/server/services/base/record';
import { needOurs } from '@/server/services/base/trusted-rows';
import {
  about,
  keepChallenge,
  knownPasskey,
  needChallenge,
  refuse,
} from '@/server/services/reading/passkey-answers';

/** The first passkey of an address is made soon after a code was entered, by whoever entered it. */
const CODE_COUNTS = 30 * MINUTE;

function wasUsedHere({ passkeyAt }: ReaderActor, now: number): boolean {
  return passkeyAt !== null && now - passkeyAt < PASSKEY_HOLDS;
}

/**
 * The first passkey rests on a code that was entered on this device just now, each further one on one
 * that was used on it.
 *
 * @throws ServiceError `CONFLICT`
 */
function needRightToMake(actor: ReaderActor, known: number, now: number): void {
  if (known > 0 && !wasUsedHere(actor, now)) throw new ServiceError('passkey-first');
  if (known === 0 && now - actor.provenAt >= CODE_COUNTS)
    throw new ServiceError('passkey-needs-proof');
}

/**
 * What this browser is to ask its user for: to use a passkey of theirs, or to make one.
 *
 * @throws ServiceError `CONFLICT` where the first is asked for and the code was entered long ago
 */
export async function beginPasskey(
  deps: Deps,
  actor: ReaderActor,
  { another }: { readonly another: boolean },
): Promise<PasskeyAsked> {
  const now = deps.clock.now();
  const known = await passkeysOf(deps.db.read, actor.address);
  // Whoever can write to the database could spoil what there is, and have a mailbox stand for it.
  await needOurs(deps, deps.db.read, { passkeys: known.map(({ id }) => id) });
  const makes = known.length === 0 || (another && wasUsedHere(actor, now));
  if (!makes) {
    const options = await askToUse(deps.publicUrl, known);
    await keepChallenge(deps, actor.device, options.challenge);
    return { kind: 'use', options };
  }
  needRightToMake(actor, known.length, now);
  const organisation = await findOrganisation(deps.db.read);
  const options = await askToMake(deps.publicUrl, {
    organisation: organisation?.name ?? 'Embargo',
    address: actor.address,
    user: utf8(deps.vault.mac('passkey user', actor.address)).slice(0, 32),
    known,
  });
  await keepChallenge(deps, actor.device, options.challenge);
  return { kind: 'make', options };
}

/**
 * Takes what a passkey answered: from now on it counts as used on this device for half a day.
 *
 * @throws ServiceError `INVALID` where the answer is not good, or nothing was asked; `TOO_MANY`
 */
export async function finishPasskey(
  deps: Deps,
  actor: ReaderActor,
  input: FinishPasskeyInput,
): Promise<readonly OwnPasskey[]> {
  const wait = await deps.limits.guessesByNetwork(networkKey(actor.from.network));
  if (wait > 0) throw tooMany(wait);
  const challenge = await needChallenge(deps, actor.device);
  await (input.kind === 'make'
    ? finishMaking(deps, actor, input.answer, challenge)
    : finishUsing(deps, actor, input.answer, challenge));
  return listPasskeys(deps.db.read, actor.address);
}

type Answer<K extends FinishPasskeyInput['kind']> = Extract<
  FinishPasskeyInput,
  { readonly kind: K }
>['answer'];

async function finishMaking(
  deps: Deps,
  actor: ReaderActor,
  answer: Answer<'make'>,
  challenge: string,
): Promise<void> {
  const now = deps.clock.now();
  const made = await madePasskey(deps.publicUrl, answer, challenge);
  if (made === null) throw new ServiceError('passkey-refused');
  const label = deviceLabel(actor.from.agent);
  await deps.db.write(async (tx) => {
    // Looked at once more: the first one may have been made, or the last one removed, meanwhile.
    const known = await passkeysOf(tx, actor.address);
    needRightToMake(actor, known.length, now);
    await insertPasskey(tx, {
      ...made,
      id: newId('passkey', deps.random),
      publicKey: Buffer.from(made.publicKey),
      address: actor.address,
      label,
      provenAt: actor.provenAt,
      createdAt: now,
      usedAt: now,
    });
    await notePasskeyAt(tx, actor.device, now);
    await record(deps, tx, {
      action: 'passkey.made',
      outcome: 'done',
      actor: actorOf(actor),
      device: actor.device,
      ...about(deps, actor, actor.recipient, now),
      details: { passkey: label },
    });
  });
}

async function finishUsing(
  deps: Deps,
  actor: ReaderActor,
  answer: Answer<'use'>,
  challenge: string,
): Promise<void> {
  const now = deps.clock.now();
  const row = await knownPasskey(deps, answer);
  // Somebody else's passkey proves somebody else.
  const used =
    row?.address === actor.address
      ? await usedPasskey(deps.publicUrl, answer, challenge, row)
      : null;
  if (row === null || used === null) return refuse(deps, actor, {});
  await deps.db.write(async (tx) => {
    await countPasskey(tx, row.id, used.counter, now);
    await notePasskeyAt(tx, actor.device, now);
    await record(deps, tx, {
      action: 'passkey.used',
      outcome: 'granted',
      actor: actorOf(actor),
      device: actor.device,
      ...about(deps, actor, actor.recipient, now),
      details: { passkey: row.label },
    });
  });
}

/**
 * Removes a passkey of the person who asks, which needs one to be used here first: who has nothing
 * but the mailbox must not be able to put their own in its place.
 *
 * @throws ServiceError `NOT_FOUND`, `CONFLICT` where none was used here
 */
export async function removeOwnPasskey(
  deps: Deps,
  actor: ReaderActor,
  { passkey }: { readonly passkey: Id<'passkey'> },
): Promise<readonly OwnPasskey[]> {
  const now = deps.clock.now();
  if (!wasUsedHere(actor, now)) throw new ServiceError('passkey-first');
  await deps.db.write(async (tx) => {
    const known = await passkeysOf(tx, actor.address);
    if (!known.some(({ id }) => id === passkey)) throw new ServiceError('passkey-unknown');
    await endPasskey(tx, passkey, now);
    if (known.length === 1) await forgetPasskeyUses(tx, actor.address);
    await record(deps, tx, {
      action: 'passkey.removed',
      outcome: 'done',
      actor: actorOf(actor),
      device: actor.device,
      ...about(deps, actor, actor.recipient, now),
      details: { count: 1 },
    });
  });
  return listPasskeys(deps.db.read, actor.address);
}

/**
 * Removes all passkeys of a person, by staff: they lost them, or somebody else has them. What was
 * used before counts no more, and a new one can be made by who proves the address.
 *
 * @throws ServiceError `NOT_FOUND` where they have none
 */
export async function removePasskeysOf(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: RecipientId },
): Promise<Record<string, never>> {
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    const person = await findPerson(tx, id);
    if (person === null) throw new ServiceError('no-person');
    const known = await passkeysOf(tx, person.address);
    if (known.length === 0) throw new ServiceError('passkey-unknown');
    for (const passkey of known) await endPasskey(tx, passkey.id, now);
    await forgetPasskeyUses(tx, person.address);
    await record(deps, tx, {
      action: 'passkey.removed',
      outcome: 'done',
      actor: actorOf(actor),
      occurredAt: now,
      recipient: id,
      details: { count: known.length },
    });
  });
  return {};
}
