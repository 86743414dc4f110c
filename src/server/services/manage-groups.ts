import 'server-only';
import { newId, type GroupId, type RecipientId } from '@/core/base/ids';
import type { Json } from '@/core/ledger/canonical';
import type { Transaction } from '@/server/db/database';
import { addMembers, addressesIn, listGroups, putGroupRow, removeGroupRow, removeMembers } from '@/server/repositories/group-repository';
import { recipientsByIds } from '@/server/repositories/people-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { ServiceError } from '@/server/services/errors';
import { record } from '@/server/services/record';

async function needGroup(tx: Transaction, id: GroupId): Promise<string> {
  const group = (await listGroups(tx)).find((each) => each.id === id);
  if (group === undefined) throw new ServiceError('NOT_FOUND', 'There is no such group any more.');
  return group.name;
}

function noted(deps: Deps, tx: Transaction, actor: StaffActor, details: Readonly<Record<string, Json>>): Promise<void> {
  return record(deps, tx, { action: 'settings.changed', outcome: 'done', actor: { kind: 'staff', id: actor.id }, occurredAt: deps.clock.now(), details });
}

/** Makes a group or renames one. @throws ServiceError `CONFLICT` where the name is taken, `NOT_FOUND` */
export async function putGroup(deps: Deps, actor: StaffActor, input: { readonly id: GroupId | null; readonly name: string }): Promise<{ readonly id: GroupId }> {
  const id = input.id ?? newId('group', deps.random);
  await deps.db.write(async (tx) => {
    const before = input.id === null ? null : await needGroup(tx, input.id);
    if ((await listGroups(tx)).some((each) => each.id !== id && each.name.toLowerCase() === input.name.toLowerCase())) throw new ServiceError('CONFLICT', `There is a group “${input.name}” already.`);
    await putGroupRow(tx, { id, name: input.name, createdBy: actor.id, createdAt: deps.clock.now() });
    await noted(deps, tx, actor, { group: id, before, after: input.name });
  });
  return { id };
}

/** Removes a group. What its people were sent stays theirs. @throws ServiceError `NOT_FOUND` */
export async function removeGroup(deps: Deps, actor: StaffActor, { id }: { readonly id: GroupId }): Promise<Record<string, never>> {
  await deps.db.write(async (tx) => {
    const name = await needGroup(tx, id);
    await removeGroupRow(tx, id);
    await noted(deps, tx, actor, { group: id, removed: name });
  });
  return {};
}

/**
 * Puts people into a group and takes others out. What was sent before stays as it was sent: a group stands for whoever is in
 * it when something is sent.
 *
 * @throws ServiceError `NOT_FOUND`
 */
export async function changeMembers(deps: Deps, actor: StaffActor, { id, add, remove }: { readonly id: GroupId; readonly add: readonly RecipientId[]; readonly remove: readonly RecipientId[] }): Promise<Record<string, never>> {
  if ((await recipientsByIds(deps.db.read, add)).length !== new Set(add).size) throw new ServiceError('NOT_FOUND', 'One of these people is not known here.');
  await deps.db.write(async (tx) => {
    await needGroup(tx, id);
    await addMembers(tx, id, add);
    await removeMembers(tx, id, remove);
    await noted(deps, tx, actor, { group: id, added: [...add], removed: [...remove] });
  });
  return {};
}

/** The addresses that a group stands for now. */
export async function viewGroupAddresses(deps: Deps, _actor: StaffActor, { id }: { readonly id: GroupId }): Promise<{ readonly addresses: readonly string[] }> {
  return { addresses: await addressesIn(deps.db.read, id) };
}
