import 'server-only';
import { newId, type GroupId, type RecipientId } from '@/core/base/ids';
import { addressOfGroup } from '@/core/policy/addressee';
import { holds } from '@/core/policy/permissions';
import type { MembersChanged } from '@/contracts/people';
import type { SettingsDetails } from '@/core/ledger/details';
import type { Transaction } from '@/server/db/database';
import {
  addMembers,
  addressesIn,
  findGroup,
  listGroups,
  membersOf,
  putGroupRow,
  removeGroupRow,
  removeMembers,
} from '@/server/repositories/people/group-repository';
import { recipientsByIds } from '@/server/repositories/people/people-repository';
import { renameAddressee } from '@/server/repositories/access/wider-repository';
import { aboutSettings } from '@/server/services/base/about-settings';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { mailNewGrants } from '@/server/services/dispatching/mail-new-grants';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';
import { endGroup, joinGroup, leaveGroup } from '@/server/services/access/wider-access';

/** Who comes into a group and who goes. */
type Members = {
  readonly id: GroupId;
  readonly add: readonly RecipientId[];
  readonly remove: readonly RecipientId[];
};

async function needGroup(tx: Transaction, id: GroupId): Promise<string> {
  const group = await findGroup(tx, id);
  if (group === null) throw new ServiceError('no-group');
  return group.name;
}

/** @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` where somebody else made it */
async function needOwnGroup(tx: Transaction, actor: StaffActor, id: GroupId): Promise<string> {
  const name = await needGroup(tx, id);
  if (holds(actor.role, 'settings') || (await findGroup(tx, id))?.createdBy === actor.id)
    return name;
  throw new ServiceError('named-group-of-others', { name });
}

function noted(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  details: SettingsDetails,
): Promise<void> {
  return record(deps, tx, aboutSettings(actor, deps.clock.now(), details));
}

/** Makes a group or renames one. @throws ServiceError `CONFLICT` where the name is taken, `NOT_FOUND`, `NOT_ALLOWED` */
export async function putGroup(
  deps: Deps,
  actor: StaffActor,
  input: { readonly id: GroupId | null; readonly name: string },
): Promise<{ readonly id: GroupId }> {
  return deps.db.write(async (tx) => ({ id: await putIn(deps, tx, actor, input) }));
}

/** Makes a group inside a change that somebody else makes. @throws ServiceError `CONFLICT` where the name is taken */
export function makeGroup(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  name: string,
): Promise<GroupId> {
  return putIn(deps, tx, actor, { id: null, name });
}

async function putIn(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  input: { readonly id: GroupId | null; readonly name: string },
): Promise<GroupId> {
  const id = input.id ?? newId('group', deps.random);
  const before = input.id === null ? null : await needOwnGroup(tx, actor, input.id);
  if (
    (await listGroups(tx)).some(
      (each) => each.id !== id && each.name.toLowerCase() === input.name.toLowerCase(),
    )
  )
    throw new ServiceError('group-name-taken', { name: input.name });
  const createdAt = deps.clock.now();
  await putGroupRow(tx, { id, name: input.name, createdBy: actor.id, createdAt });
  await renameAddressee(tx, addressOfGroup(id), input.name);
  await noted(deps, tx, actor, { group: id, before, after: input.name });
  return id;
}

/**
 * Removes a group. What its people were sent stays theirs, and nobody can join them any more.
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`
 */
export async function removeGroup(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: GroupId },
): Promise<Record<string, never>> {
  await deps.db.write(async (tx) => {
    const name = await needOwnGroup(tx, actor, id);
    const ended = await endGroup(tx, actor, id, deps.clock.now());
    await removeGroupRow(tx, id);
    await noted(deps, tx, actor, { group: id, removed: name });
    if (ended.length > 0) await record(deps, tx, ...ended);
  });
  return {};
}

/**
 * Puts people into a group and takes others out. What was sent to the group as such is theirs from
 * now on, or no longer, and anyone who joins is mailed their link where the dispatch is mailed. What
 * was sent to those who were in it stays as it was sent.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` where that would change what others sent
 */
export async function changeMembers(
  deps: Deps,
  actor: StaffActor,
  { id, add, remove }: Members,
): Promise<MembersChanged> {
  const added = await recipientsByIds(deps.db.read, add);
  if (added.length !== new Set(add).size || added.some(({ kind }) => kind !== 'person'))
    throw new ServiceError('member-unknown');
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    await needGroup(tx, id);
    return changeIn(deps, tx, actor, { id, add, remove }, now);
  });
}

/** Puts people into a group inside a change that somebody else makes. @throws ServiceError `NOT_ALLOWED` */
export async function join(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  id: GroupId,
  people: readonly RecipientId[],
  now: number,
): Promise<void> {
  await changeIn(deps, tx, actor, { id, add: people, remove: [] }, now);
}

async function changeIn(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  { id, add, remove }: Members,
  now: number,
): Promise<MembersChanged> {
  const before = new Set((await membersOf(tx, [id])).map(({ person }) => person.id));
  await addMembers(tx, id, add);
  await removeMembers(tx, id, remove);
  await noted(deps, tx, actor, { group: id, added: [...add], removed: [...remove] });
  const joined = await joinGroup(
    deps,
    tx,
    actor,
    id,
    add.filter((person) => !before.has(person) && !remove.includes(person)),
    now,
  );
  const left = await leaveGroup(tx, actor, id, remove, now);
  if (joined.events.length + left.length > 0) await record(deps, tx, ...joined.events, ...left);
  await mailNewGrants(deps, tx, actor, joined.newGrants, now);
  return { given: joined.given.length, ended: left.length };
}

/** The addresses that a group stands for now. */
export async function viewGroupAddresses(
  deps: Deps,
  _actor: StaffActor,
  { id }: { readonly id: GroupId },
): Promise<{ readonly addresses: readonly string[] }> {
  return { addresses: await addressesIn(deps.db.read, id) };
}
