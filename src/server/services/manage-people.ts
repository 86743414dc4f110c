import 'server-only';
import type { RecipientId } from '@/core/base/ids';
import type { PersonDetail, PersonRow } from '@/contracts/people';
import { devicesOf, findPerson, listPeopleRows, refusalsOfPerson, setBlocked } from '@/server/repositories/people-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { ServiceError } from '@/server/services/errors';
import { grantRows } from '@/server/services/grant-rows';
import { record, recordAlone } from '@/server/services/record';

/** Everybody who was ever addressed, by organisation and name. */
export async function listPeople(deps: Deps): Promise<readonly PersonRow[]> {
  const rows = await listPeopleRows(deps.db.read, deps.clock.now());
  return rows.map((row) => ({ ...row, documents: row.documents ?? 0, live: row.blocked ? 0 : (row.live ?? 0), opens: row.opens ?? 0 }));
}

/** One person: what they hold, opened, were refused, and on which devices. Looking is recorded. */
export async function viewPerson(deps: Deps, actor: StaffActor, { id }: { readonly id: RecipientId }): Promise<PersonDetail> {
  const row = (await listPeople(deps)).find((each) => each.id === id);
  if (row === undefined) throw new ServiceError('NOT_FOUND', 'There is no such person.');
  const now = deps.clock.now();
  await recordAlone(deps, { action: 'staff.viewed', outcome: 'done', actor: { kind: 'staff', id: actor.id }, occurredAt: now, recipient: id });
  const [grants, devices, refusals] = await Promise.all([grantRows(deps, actor, { recipient: id }), devicesOf(deps.db.read, row.address, now), refusalsOfPerson(deps.db.read, id)]);
  return { ...row, grants, devices, refusals };
}

/** Stops every access of a person whatever they hold, or lets it be again; their grants stay as they are underneath. */
export async function blockPerson(deps: Deps, actor: StaffActor, { id, blocked }: { readonly id: RecipientId; readonly blocked: boolean }): Promise<Record<string, never>> {
  await deps.db.write(async (tx) => {
    const person = await findPerson(tx, id);
    if (person === null) throw new ServiceError('NOT_FOUND', 'There is no such person.');
    if (person.blocked === blocked) return;
    await setBlocked(tx, id, blocked);
    await record(deps, tx, { action: blocked ? 'recipient.blocked' : 'recipient.unblocked', outcome: 'done', actor: { kind: 'staff', id: actor.id }, occurredAt: deps.clock.now(), recipient: id });
  });
  return {};
}
