import 'server-only';
import { dayAfter, dayBegins } from '@/core/base/days';
import type { DispatchesPage, ListDispatchesInput } from '@/contracts/dispatch-list';
import { countDispatches } from '@/server/repositories/dispatching/dispatch-repository';
import {
  listDispatchRows,
  organisationsSentTo,
} from '@/server/repositories/dispatching/dispatch-list';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { listMarkings } from '@/server/repositories/documents/filing-repository';
import { recipientsByIds } from '@/server/repositories/people/people-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { listColleagues } from '@/server/repositories/staff/staff-repository';
import { viewsOf } from '@/server/repositories/staff/view-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';

/** What the people and documents are called that the list is narrowed to. */
async function namesIn(
  { db }: Pick<Deps, 'db'>,
  { recipient, document }: ListDispatchesInput,
): Promise<DispatchesPage['named']> {
  const [person] = recipient === undefined ? [] : await recipientsByIds(db.read, [recipient]);
  const found = document === undefined ? null : await findDocument(db.read, document);
  return {
    recipient: person === undefined ? null : person.name === '' ? person.address : person.name,
    document: found?.document.title ?? null,
  };
}

/** The dispatches that pass the filter, the newest first, with what the list can be narrowed by. */
export async function viewDispatches(
  deps: Deps,
  actor: StaffActor,
  filter: ListDispatchesInput,
): Promise<DispatchesPage> {
  const db = deps.db.read;
  const zone = (await findOrganisation(db))?.zone ?? 'UTC';
  const { q, from, to, ...rest } = filter;
  const now = deps.clock.now();
  const bounds = {
    from: from === undefined ? undefined : dayBegins(from, zone),
    to: to === undefined ? undefined : dayBegins(dayAfter(to), zone),
  };
  const [rows, all, named, senders, organisations, markings, views] = await Promise.all([
    listDispatchRows(db, now, { ...rest, ...bounds, text: q }),
    countDispatches(db),
    namesIn(deps, filter),
    listColleagues(db),
    organisationsSentTo(db),
    listMarkings(db),
    viewsOf(db, actor.id, 'dispatches'),
  ]);
  return {
    rows: rows.map((row) => ({
      ...row,
      documents: row.documents ?? 0,
      people: row.people ?? 0,
      unknown: row.unknown === 1,
      live: row.live ?? 0,
      opens: row.opens ?? 0,
      refusals: row.refusals ?? 0,
    })),
    total: all,
    filter,
    named,
    senders,
    organisations,
    markings,
    views,
  };
}
