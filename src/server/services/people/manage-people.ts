import 'server-only';
import type { RecipientId } from '@/core/base/ids';
import { holds } from '@/core/policy/permissions';
import { standsForMany } from '@/core/policy/addressee';
import type { LedgerEvent } from '@/core/ledger/entry';
import { splitOrder } from '@/core/base/order';
import type {
  ChangePersonInput,
  ListPeopleInput,
  PeoplePage,
  PersonDetail,
  PersonRow,
} from '@/contracts/people';
import type { Transaction } from '@/server/db/database';
import {
  changePersonRow,
  countPeople,
  findByOwnId,
  findPerson,
  listPeopleRows,
  refusalsOfPerson,
  triesByTheirLinks,
  setBlocked,
} from '@/server/repositories/people/people-repository';
import { groupsOf, listGroups } from '@/server/repositories/people/group-repository';
import { otherAddresses } from '@/server/repositories/people/same-person-repository';
import { listPasskeys } from '@/server/repositories/reading/passkey-repository';
import { devicesOfAddress } from '@/server/repositories/reading/sent-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { grantRows } from '@/server/services/access/grant-rows';
import { documentsReached } from '@/server/services/access/reach-now';
import { readsOnOf } from '@/server/services/access/revoke-effect';
import { needBecause } from '@/server/services/base/reasons';
import { record, recordAlone } from '@/server/services/base/record';

/** Rows sent at a time; the rest follows as somebody scrolls. */
const ROWS = 200;

function toRow(row: Awaited<ReturnType<typeof listPeopleRows>>[number]): PersonRow {
  return { ...row, live: row.blocked ? 0 : row.live };
}

/** A stretch of everybody who was ever addressed, in the order asked for, else by organisation and name. */
export async function listPeople(
  deps: Deps,
  _actor: StaffActor,
  { q, organisation, group, sort, after }: ListPeopleInput,
): Promise<PeoplePage> {
  const filter = { text: q, organisation, group };
  const [groups, rows, { people, organisations }] = await Promise.all([
    listGroups(deps.db.read),
    listPeopleRows(deps.db.read, filter, deps.clock.now(), {
      limit: ROWS,
      after,
      order: sort === undefined ? undefined : splitOrder(sort),
    }),
    countPeople(deps.db.read, filter),
  ]);
  return {
    rows: rows.map(toRow),
    total: people,
    organisations,
    groups,
    next: rows.length === ROWS ? (rows.at(-1)?.id ?? null) : null,
  };
}

/** One person: what they hold, opened, were refused, and on which devices. Looking is recorded. */
export async function viewPerson(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: RecipientId },
): Promise<PersonDetail> {
  const [found] = await listPeopleRows(deps.db.read, { id }, deps.clock.now(), { limit: 1 });
  if (found === undefined) throw new ServiceError('no-person');
  const row = toRow(found);
  const now = deps.clock.now();
  await recordAlone(deps, {
    action: 'staff.viewed',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: now,
    recipient: id,
  });
  const [
    groups,
    inGroups,
    grants,
    wider,
    reached,
    others,
    devices,
    passkeys,
    refusals,
    byTheirLinks,
  ] = await Promise.all([
    listGroups(deps.db.read),
    groupsOf(deps.db.read, id),
    grantRows(deps, actor, { recipient: id }),
    grantRows(deps, actor, { widerThan: id }),
    documentsReached(deps, row),
    otherAddresses(deps.db.read, id),
    devicesOfAddress(deps.db.read, row.address, now),
    listPasskeys(deps.db.read, row.address),
    refusalsOfPerson(deps.db.read, id),
    triesByTheirLinks(deps.db.read, id),
  ]);
  const people = [id, ...others.map((other) => other.id)];
  // For those who may shut them out: for others it is part of a record that they may not read.
  const [last] = holds(actor.role, 'block') ? await readsOnOf(deps, { people }) : [];
  return {
    ...row,
    readsOn: last?.until ?? null,
    grants,
    wider,
    others,
    reach: Array.from(reached, ([document, each]) => ({
      document,
      reason: each.opens ? null : each.reason,
    })),
    devices,
    passkeys,
    refusals,
    byTheirLinks,
    groups,
    inGroups,
  };
}

/**
 * Stops every access of a person, by whichever of their addresses and whatever they hold, or lets
 * it be again; their grants stay as they are underneath.
 */
export async function blockPerson(
  deps: Deps,
  actor: StaffActor,
  {
    id,
    blocked,
    reason,
  }: { readonly id: RecipientId; readonly blocked: boolean; readonly reason?: string | undefined },
): Promise<Record<string, never>> {
  await deps.db.write(async (tx) => {
    const person = await findPerson(tx, id);
    if (person === null || standsForMany(person.kind)) throw new ServiceError('no-person');
    if (person.blocked === blocked) return;
    const why = await needBecause(tx, reason);
    const all = [id, ...(await otherAddresses(tx, id)).map((other) => other.id)];
    for (const each of all) await setBlocked(tx, each, blocked);
    await record(
      deps,
      tx,
      ...all.map((recipient): LedgerEvent => ({
        action: blocked ? 'recipient.blocked' : 'recipient.unblocked',
        outcome: 'done',
        actor: { kind: 'staff', id: actor.id },
        occurredAt: deps.clock.now(),
        recipient,
        ...why,
      })),
    );
  });
  return {};
}

/**
 * Corrects what is known about a person. Their address stays: it is what they prove. @throws
 * ServiceError `NOT_FOUND`, `NOT_ALLOWED`
 */
export async function changePerson(
  deps: Deps,
  actor: StaffActor,
  { id, ...change }: ChangePersonInput,
): Promise<Record<string, never>> {
  await deps.db.write(async (tx) => {
    const before = await findPerson(tx, id);
    if (before === null) throw new ServiceError('no-person');
    if (!holds(actor.role, 'settings') && before.addedBy !== actor.id)
      throw new ServiceError('person-of-others');
    const {
      name = before.name,
      organisation = before.organisation,
      zone = before.zone,
      language = before.language,
      ownId = before.ownId,
    } = change;
    await needFree(tx, id, ownId);
    await changePersonRow(tx, id, { name, organisation, zone, language, ownId });
    await record(deps, tx, {
      action: 'recipient.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: deps.clock.now(),
      recipient: id,
      details: {
        before: { zone: before.zone, language: before.language, ownId: before.ownId },
        after: { zone, language, ownId },
      },
      personal: { text: `${before.name}, ${before.organisation} → ${name}, ${organisation}` },
    });
  });
  return {};
}

/** Nobody else is called by the same identifier. @throws ServiceError `CONFLICT` */
async function needFree(tx: Transaction, id: RecipientId, ownId: string | null): Promise<void> {
  if (ownId === null) return;
  const other = await findByOwnId(tx, ownId);
  if (other !== null && other.id !== id)
    throw new ServiceError('own-id-taken', { ownId, address: other.address });
}
