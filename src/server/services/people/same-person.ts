import 'server-only';
import type { RecipientId } from '@/core/base/ids';
import type { AddressInput } from '@/contracts/people';
import { findPerson } from '@/server/repositories/people/people-repository';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import { otherAddresses, setSame } from '@/server/repositories/people/same-person-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';

/**
 * Says that another known address is the same person's. Each is proven by itself and holds what it
 * holds; blocking, leaving and revoking everything are about all of them.
 *
 * @throws ServiceError `NOT_FOUND` where nobody is known by that address, `CONFLICT`
 */
export async function addAddress(
  deps: Deps,
  actor: StaffActor,
  { id, address }: AddressInput,
): Promise<Record<string, never>> {
  await deps.db.write(async (tx) => {
    const [person, other] = [await findPerson(tx, id), await findRecipientByAddress(tx, address)];
    if (person?.kind !== 'person') throw new ServiceError('no-person');
    if (other === null) throw new ServiceError('nobody-to-join', { address });
    if (other.id === id || (await otherAddresses(tx, id)).some((each) => each.id === other.id))
      throw new ServiceError('address-is-theirs');
    if (person.blocked !== other.blocked) throw new ServiceError('one-is-blocked');
    const root = person.sameAs ?? person.id;
    for (const each of [other, ...(await otherAddresses(tx, other.id))])
      await setSame(tx, each.id, root);
    await record(deps, tx, {
      action: 'recipient.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: deps.clock.now(),
      recipient: id,
      details: { sameAs: other.id },
    });
  });
  return {};
}

/** Says that an address is somebody else's after all: it stands by itself again. @throws ServiceError `NOT_FOUND` */
export async function dropAddress(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: RecipientId },
): Promise<Record<string, never>> {
  await deps.db.write(async (tx) => {
    const person = await findPerson(tx, id);
    if (person === null) throw new ServiceError('no-person');
    const others = await otherAddresses(tx, id);
    // The others stay together, under another one where this was the one they were gathered under.
    const [first] = others;
    if (person.sameAs === null && first !== undefined)
      for (const each of others) await setSame(tx, each.id, each.id === first.id ? null : first.id);
    await setSame(tx, id, null);
    await record(deps, tx, {
      action: 'recipient.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: deps.clock.now(),
      recipient: id,
      details: { sameAs: null },
    });
  });
  return {};
}
