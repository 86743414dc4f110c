import 'server-only';
import { VISITOR } from '@/core/policy/addressee-name';
import { randomText, newId, type DispatchId, type RecipientId } from '@/core/base/ids';
import { addressOfLink, addressOfVisitor } from '@/core/policy/addressee';
import type { VisitInput } from '@/contracts/reader';
import type { Transaction } from '@/server/db/database';
import { insertRecipients } from '@/server/repositories/people/recipient-repository';
import { findLink, findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import { networkKey } from '@/server/limits/limits';
import { liveOfAddressee } from '@/server/repositories/access/wider-repository';
import type { Deps, ReaderActor, StrangerActor } from '@/server/services/base/deps';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { makeDevice, needDeviceKey } from '@/server/services/reading/make-device';
import { record, whereabouts } from '@/server/services/base/record';
import { giveBeneath } from '@/server/services/access/wider-access';

const VISITOR_CHARACTERS = 8;

/** What a link asks for before it leads anywhere; `null` where there is no such link. Says nothing else of it. */
export async function proofAsked(
  deps: Pick<Deps, 'db'>,
  token: string,
): Promise<'address' | 'nothing' | null> {
  const link = await findLink(deps.db.read, token);
  return link === null ? null : link.kind === 'link' ? 'nothing' : 'address';
}

/** Gives somebody who holds an open link what it was sent with. @returns how many grants that came to */
async function giveByLink(
  deps: Pick<Deps, 'random' | 'recorder' | 'clock' | 'integrity'>,
  tx: Transaction,
  dispatch: DispatchId,
  person: RecipientId,
  now: number,
): Promise<number> {
  const addressee = await findRecipientByAddress(tx, addressOfLink(dispatch));
  const open = addressee === null ? [] : await liveOfAddressee(tx, addressee.id, now);
  const events = await giveBeneath(
    deps,
    tx,
    open.map(({ grant }) => grant),
    person,
    now,
  );
  if (events.length > 0) await record(deps, tx, ...events);
  return open.length;
}

/** The same for somebody whose address this browser has proven: they are who they are, with an open link as well. */
export async function joinByLink(
  deps: Deps,
  actor: ReaderActor,
  dispatch: DispatchId,
): Promise<void> {
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    const known = await findRecipientByAddress(tx, actor.address);
    const person = known?.id ?? newId('recipient', deps.random);
    if (known === null)
      await insertRecipients(tx, [
        { id: person, address: actor.address, name: '', organisation: '', createdAt: now },
      ]);
    await giveByLink(deps, tx, dispatch, person, now);
  });
}

/**
 * Lets in anyone who holds an open link: a visitor of whom nothing is known but the browser, for this visit.
 *
 * @throws ServiceError `NOT_FOUND` where the link asks for proof or leads nowhere any more, `TOO_MANY`
 */
export async function visitLink(
  deps: Deps,
  actor: StrangerActor,
  input: VisitInput,
): Promise<{ readonly deviceToken: string }> {
  const link = await findLink(deps.db.read, input.token);
  if (link?.kind !== 'link') throw new ServiceError('link-unknown');
  needDeviceKey(input.publicKey);
  const wait = await deps.limits.codesByNetwork(networkKey(actor.from.network));
  if (wait > 0) throw tooMany(wait);
  const now = deps.clock.now();
  const person = newId('recipient', deps.random);
  const address = addressOfVisitor(randomText(VISITOR_CHARACTERS, deps.random));
  return deps.db.write(async (tx) => {
    await insertRecipients(tx, [
      {
        id: person,
        kind: 'visitor',
        address,
        name: VISITOR,
        organisation: '',
        createdAt: now,
      },
    ]);
    if ((await giveByLink(deps, tx, link.dispatch.id, person, now)) === 0)
      throw new ServiceError('link-ended');
    const { device, deviceToken } = await makeDevice(
      deps,
      tx,
      {
        address,
        recipient: person,
        agent: actor.from.agent,
        kept: false,
        publicKey: input.publicKey,
      },
      now,
    );
    await record(deps, tx, {
      action: 'link.visited',
      outcome: 'granted',
      actor: { kind: 'recipient', id: person },
      occurredAt: now,
      dispatch: link.dispatch.id,
      recipient: person,
      device,
      personal: whereabouts(deps, actor.from),
    });
    return { deviceToken };
  });
}
