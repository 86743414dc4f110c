import 'server-only';
import { newId } from '@/core/base/ids';
import type { AddedToPeople, AddToPeopleInput } from '@/contracts/add-people';
import { holds } from '@/core/policy/permissions';
import type { LedgerEvent } from '@/core/ledger/entry';
import type { Transaction } from '@/server/db/database';
import {
  findRecipients,
  insertRecipients,
} from '@/server/repositories/people/recipient-repository';
import { changePersonRow } from '@/server/repositories/people/people-repository';
import { findGroup } from '@/server/repositories/people/group-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';
import { join, makeGroup } from '@/server/services/people/manage-groups';

/**
 * Adds people before anything is sent to them, and puts them into a group where one is named. Who is
 * known already stays as they are, but for what was not known. Nobody is given access by it, but by
 * joining a group that something was sent to as such.
 *
 * @throws ServiceError `NOT_FOUND` where the group is gone, `CONFLICT` where its name is taken,
 * `NOT_ALLOWED`
 */
export async function addToPeople(
  deps: Deps,
  actor: StaffActor,
  { people, group }: AddToPeopleInput,
): Promise<AddedToPeople> {
  const now = deps.clock.now();
  const wanted = new Map(people.map((person) => [person.address, person]));
  return deps.db.write(async (tx) => {
    const known = await findRecipients(tx, [...wanted.keys()]);
    const isKnown = new Set(known.map(({ address }) => address));
    const added = [...wanted.values()]
      .filter(({ address }) => !isKnown.has(address))
      .map((person) => ({
        ...person,
        id: newId('recipient', deps.random),
        addedBy: actor.id,
        createdAt: now,
      }));
    await insertRecipients(tx, added);
    const events = await fillIn(tx, actor, known, wanted, now);
    if (added.length > 0)
      events.push({
        action: 'people.imported',
        outcome: 'done',
        actor: { kind: 'staff', id: actor.id },
        occurredAt: now,
        details: {
          format: 'typed',
          added: added.length,
          changed: events.length,
          same: known.length - events.length,
          problems: 0,
        },
      });
    if (events.length > 0) await record(deps, tx, ...events);
    const id = await groupOf(deps, tx, actor, group);
    const all = [...known, ...added].map((person) => person.id);
    if (id !== null) await join(deps, tx, actor, id, all, now);
    return { added: added.length, known: known.length, group: id };
  });
}

type Stated = AddToPeopleInput['people'][number];

/** Fills in what was not known of people who are known. */
async function fillIn(
  tx: Transaction,
  actor: StaffActor,
  known: Awaited<ReturnType<typeof findRecipients>>,
  wanted: ReadonlyMap<string, Stated>,
  now: number,
): Promise<LedgerEvent[]> {
  const events: LedgerEvent[] = [];
  for (const { id, address, ...before } of known) {
    // What others know of somebody is theirs to say, as where a person is changed alone.
    if (!holds(actor.role, 'settings') && before.addedBy !== actor.id) continue;
    const stated = wanted.get(address) ?? before;
    const name = before.name || stated.name;
    const organisation = before.organisation || stated.organisation;
    if (name === before.name && organisation === before.organisation) continue;
    await changePersonRow(tx, id, { name, organisation });
    events.push({
      action: 'recipient.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      recipient: id,
      details: { before: {}, after: {} },
      personal: { text: `${before.name}, ${before.organisation} → ${name}, ${organisation}` },
    });
  }
  return events;
}

async function groupOf(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  group: AddToPeopleInput['group'],
): Promise<AddedToPeople['group']> {
  if (group === null) return null;
  if ('name' in group) return makeGroup(deps, tx, actor, group.name);
  if ((await findGroup(tx, group.id)) === null) throw new ServiceError('no-group');
  return group.id;
}
