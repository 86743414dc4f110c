import 'server-only';
import { isInTheClear } from '@/core/policy/delivery';
import { newId, type RecipientId } from '@/core/base/ids';
import type { LedgerEvent } from '@/core/ledger/entry';
import { reaches } from '@/core/policy/permissions';
import type { HasLeft, LeftInput } from '@/contracts/access';
import type { Transaction } from '@/server/db/database';
import { insertRecipients } from '@/server/repositories/people/recipient-repository';
import { type GrantRecord } from '@/server/repositories/access/grant-reader';
import { groupsOf, removeMembers } from '@/server/repositories/people/group-repository';
import {
  findPerson,
  setLeft,
  type PersonRecord,
} from '@/server/repositories/people/people-repository';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import { otherAddresses } from '@/server/repositories/people/same-person-repository';
import { liveOfAddressee } from '@/server/repositories/access/wider-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { mailNewGrants } from '@/server/services/dispatching/mail-new-grants';
import { record } from '@/server/services/base/record';
import { giveAlike, leaveGroup } from '@/server/services/access/wider-access';

/** @throws ServiceError `INVALID`, `CONFLICT` */
async function settleSuccessor(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  person: PersonRecord,
  address: string,
  now: number,
): Promise<RecipientId> {
  if (address === person.address) throw new ServiceError('successor-is-self');
  const known = await findRecipientByAddress(tx, address);
  if (known?.blocked === true) throw new ServiceError('successor-blocked', { address });
  if (known !== null) return known.id;
  const id = newId('recipient', deps.random);
  await insertRecipients(tx, [
    { id, address, name: '', organisation: person.organisation, addedBy: actor.id, createdAt: now },
  ]);
  return id;
}

/**
 * Notes that somebody has left their organisation: they are blocked, by each of their addresses,
 * out of every group, and the person who takes over is given, on the same terms and in the same dispatches,
 * what they could still open of what the caller answers for. What went out unprotected does not go
 * out again.
 *
 * @throws ServiceError `NOT_FOUND`, `CONFLICT` where they had left before or the successor is
 * blocked, `INVALID`, `NOT_ALLOWED`
 */
export async function markLeft(
  deps: Deps,
  actor: StaffActor,
  { id, successor }: LeftInput,
): Promise<HasLeft> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const person = await findPerson(tx, id);
    if (person?.kind !== 'person') throw new ServiceError('no-person');
    if (person.leftAt !== null) throw new ServiceError('left-before');
    const addresses = [id, ...(await otherAddresses(tx, id)).map((other) => other.id)];
    const held: GrantRecord[] = [];
    let left = 0;
    for (const address of addresses) {
      held.push(
        ...(await liveOfAddressee(tx, address, now))
          .filter(
            ({ form, sentBy, ownerId, deputyId }) =>
              !isInTheClear(form) &&
              reaches(actor, { sender: sentBy, owner: ownerId, deputy: deputyId }),
          )
          .map(({ grant }) => grant),
      );
      const groups = await groupsOf(tx, address);
      left += groups.length;
      for (const group of groups) {
        await removeMembers(tx, group, [address]);
        const ended = await leaveGroup(tx, actor, group, [address], now);
        if (ended.length > 0) await record(deps, tx, ...ended);
      }
      await setLeft(tx, address, now);
    }
    const heir =
      successor == null ? null : await settleSuccessor(deps, tx, actor, person, successor, now);
    await record(
      deps,
      tx,
      ...addresses.map((recipient): LedgerEvent => ({
        action: 'recipient.blocked',
        outcome: 'done',
        actor: { kind: 'staff', id: actor.id },
        occurredAt: now,
        recipient,
        details: { because: 'left', successor: heir },
      })),
    );
    if (heir === null) return { given: 0, groups: left };
    const { rows, events } = await giveAlike(deps, tx, actor, held, heir, now);
    if (events.length > 0) await record(deps, tx, ...events);
    await mailNewGrants(deps, tx, actor, rows, now);
    return { given: new Set(rows.map(({ documentId }) => documentId)).size, groups: left };
  });
}
