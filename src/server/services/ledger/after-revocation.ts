import 'server-only';
import { isInTheClear } from '@/core/policy/delivery';
import { groupBy } from '@/core/base/group';
import type { DocumentId, GrantId, RecipientId, StaffId } from '@/core/base/ids';
import { domainOf } from '@/core/policy/address';
import { standsForMany } from '@/core/policy/addressee';
import { holds, reaches } from '@/core/policy/permissions';
import type { AfterInput, AfterPage, AfterRow, Copies } from '@/contracts/after-revocation';
import type { Reading } from '@/server/db/database';
import {
  entriesAbout,
  latestByPerson,
  runningOffline,
  type AboutEntry,
} from '@/server/repositories/access/after-repository';
import { findDispatch } from '@/server/repositories/dispatching/dispatch-repository';
import { grantsOf } from '@/server/repositories/access/grant-reader';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { namesOf } from '@/server/repositories/ledger/name-repository';
import { listStaff } from '@/server/repositories/staff/staff-repository';
import { openLinksOf, wayOf } from '@/server/services/access/revoke-effect';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { reachedWithout, type Reached, type Row } from '@/server/services/access/reach-now';

/** A page with the entries that it is read from. */
export type After = AfterPage & { readonly entries: readonly AboutEntry[] };

/** Whether a grant was pulled back: by itself, or with its document. */
function isPulledBack({ grant, document }: Row): boolean {
  return grant.revokedAt !== null || document.revokedAt !== null;
}

/** When a grant ended or ends: revoked, by its own end, or with its document. `Infinity`: never. */
function endOf({ grant, document }: Row): number {
  return Math.min(
    grant.revokedAt ?? Infinity,
    grant.untilAt ?? Infinity,
    document.revokedAt ?? Infinity,
  );
}

/** Whether a grant lets somebody in now, by its own window and its document. */
function isLive(row: Row, now: number): boolean {
  return row.hasKey === 1 && endOf(row) > now && (row.grant.fromAt ?? 0) <= now;
}

/** When the last of these ends; null: one of them never does. */
function lastEnd(rows: readonly Row[]): number | null {
  const end = Math.max(...rows.map(endOf));
  return Number.isFinite(end) ? end : null;
}

function copiesOf(rows: readonly Row[], theirs: readonly AboutEntry[]): Copies {
  const done = (action: string) =>
    theirs.filter(({ entry }) => entry.action === action && entry.outcome === 'granted');
  const kept = done('document.kept').at(0);
  // Before it was told apart, text that was sent was written down as copied.
  const [sent, copied] = [done('text.sent'), done('text.copied')];
  return {
    prints: rows.reduce((sum, { grant }) => sum + grant.printsMade, 0),
    keptAt: kept === undefined ? null : Date.parse(kept.entry.occurredAt),
    textSent: sent.length + copied.length > 0,
    textCopied: copied.some(({ entry }) => entry.details['characters'] !== undefined),
    inTheClear: rows.some(({ dispatch }) => isInTheClear(dispatch.form)),
  };
}

type Found = {
  readonly actor: StaffActor;
  readonly all: readonly Row[];
  readonly reached: ReadonlyMap<RecipientId, Reached>;
  readonly entries: readonly AboutEntry[];
  readonly offline: ReadonlyMap<RecipientId, number>;
  readonly names: ReadonlyMap<string, string>;
  readonly mayTakeBack: (by: StaffId | null) => boolean;
  readonly now: number;
};

/** By what an addressee still gets in. */
function routesOf({ recipient }: Row, { all, reached, now }: Found): Row[] {
  if (standsForMany(recipient.kind))
    return all.filter((row) => row.recipient.id === recipient.id && isLive(row, now));
  const after = reached.get(recipient.id)?.after;
  return after?.opens === true ? all.filter(({ grant }) => after.routes.includes(grant.id)) : [];
}

/** When the last of an addressee's ways ended; what everyone at their domain had was one as well. */
function shutOutSince({ recipient }: Row, { all, now }: Found): number {
  const theirs = new Set([recipient.address]);
  if (!standsForMany(recipient.kind)) theirs.add(domainOf(recipient.address));
  const ends = all
    .filter((row) => row.recipient.id === recipient.id || theirs.has(row.recipient.address))
    .map(endOf);
  return Math.max(...ends.filter((end) => end <= now));
}

/** What last ended one of these grants: its own revocation, or that of the document. */
function lastCut(rows: readonly [Row, ...Row[]], { entries }: Found): AboutEntry | undefined {
  const cuts = new Set(rows.map(({ grant }) => grant.id));
  const isDocumentRevoked = rows[0].document.revokedAt !== null;
  return entries.findLast(
    ({ entry: { action, grant } }) =>
      (action === 'grant.revoked' && grant !== null && cuts.has(grant)) ||
      (action === 'document.revoked' && isDocumentRevoked),
  );
}

function refusedSince(among: readonly AboutEntry[], since: number): AboutEntry[] {
  return among.filter(
    ({ entry }) => entry.outcome === 'refused' && Date.parse(entry.occurredAt) >= since,
  );
}

/** Whether somebody tried by what an addressee was sent, without being that addressee. */
function isByOthers(
  { entry }: AboutEntry,
  { recipient }: Row,
  dispatches: ReadonlySet<string>,
  { reached }: Found,
): boolean {
  const linkOf = entry.details['linkOf'];
  if (!standsForMany(recipient.kind))
    return linkOf === recipient.id && entry.recipient !== recipient.id;
  const isKnown = entry.recipient !== null && reached.has(entry.recipient);
  return (
    entry.dispatch !== null && dispatches.has(entry.dispatch) && linkOf === undefined && !isKnown
  );
}

function mayUndo(
  { grant, dispatch, document, hasKey }: Row,
  { actor, mayTakeBack }: Found,
): boolean {
  if (hasKey === 0) return false;
  const belongs = {
    sender: dispatch.sentBy,
    owner: document.ownerId,
    deputy: document.deputyId,
  };
  return grant.revokedAt !== null && mayTakeBack(grant.revokedBy) && reaches(actor, belongs);
}

/** One addressee: `rows` are what they were given on the document and is pulled back. */
function rowOf(rows: readonly [Row, ...Row[]], found: Found): AfterRow {
  const { actor, all, reached, entries, offline, names, now } = found;
  const [first] = rows;
  const { recipient, document } = first;
  const theirs = entries.filter(({ entry }) => entry.recipient === recipient.id);
  const routes = routesOf(first, found);
  const since = routes.length > 0 ? null : shutOutSince(first, found);
  const tries = refusedSince(theirs, since ?? now);
  const dispatches = new Set(rows.map(({ dispatch }) => dispatch.id));
  const byOthers = refusedSince(entries, since ?? now).filter((entry) =>
    isByOthers(entry, first, dispatches, found),
  );
  const last = lastCut(rows, found);
  return {
    recipient: recipient.id,
    kind: recipient.kind,
    name: recipient.name,
    address: recipient.address,
    organisation: recipient.organisation,
    document: document.id,
    title: document.title,
    reference: document.reference,
    dispatch: [...new Set(rows.map(({ dispatch }) => dispatch.reference))].join(', '),
    since,
    by: names.get(last?.entry.actor.id ?? '') ?? '',
    reason: last?.said ?? '',
    ways: routes.map((row) => wayOf(actor, row, all)),
    until: standsForMany(recipient.kind)
      ? lastEnd(routes)
      : untilOf(reached.get(recipient.id)?.after),
    offlineUntil: offline.get(recipient.id) ?? null,
    tries: tries.length,
    lastTry: momentOf(tries.at(-1)),
    triesByOthers: byOthers.length,
    copies: copiesOf(rows, theirs),
    undo: rows.filter((row) => mayUndo(row, found)).map(({ grant }) => grant.id),
  };
}

function untilOf(after: Reached['after'] | undefined): number | null {
  return after?.opens === true ? after.until : null;
}

function momentOf(about: AboutEntry | undefined): number | null {
  return about === undefined ? null : Date.parse(about.entry.occurredAt);
}

/** Whose revocations somebody may take back: an administrator's only another administrator. */
async function takingBack(
  db: Reading,
  actor: StaffActor,
): Promise<(by: StaffId | null) => boolean> {
  if (holds(actor.role, 'settings')) return () => true;
  const administrators = new Set(
    (await listStaff(db)).filter(({ row }) => holds(row.role, 'settings')).map(({ row }) => row.id),
  );
  return (by) => by === null || by === actor.id || !administrators.has(by);
}

async function onDocument(
  deps: Pick<Deps, 'db' | 'clock'>,
  actor: StaffActor,
  document: DocumentId,
  isWanted: (row: Row) => boolean,
): Promise<{
  readonly rows: readonly AfterRow[];
  readonly entries: readonly AboutEntry[];
  readonly openLinks: AfterPage['openLinks'];
  readonly hasKey: boolean;
}> {
  const db = deps.db.read;
  const all = await grantsOf(db, { document });
  const wanted = all.filter((row) => isWanted(row) && isPulledBack(row));
  const hasKey = all.some((row) => row.hasKey === 1);
  if (wanted.length === 0) return { rows: [], entries: [], openLinks: [], hasKey };
  const now = deps.clock.now();
  const [reached, entries, offline] = await Promise.all([
    reachedWithout(deps, all, new Set<GrantId>()),
    entriesAbout(db, {
      document,
      grants: wanted.map(({ grant }) => grant.id),
      people: [...new Set(wanted.map(({ recipient }) => recipient.id))],
      many: wanted
        .filter(({ recipient }) => standsForMany(recipient.kind))
        .map(({ dispatch }) => dispatch.id),
    }),
    runningOffline(db, [...new Set(wanted.map(({ grant }) => grant.id))], now),
  ]);
  const names = await namesOf(db, [
    ...new Set(entries.map(({ entry }) => entry.actor.id).filter((id) => id !== null)),
  ]);
  const found: Found = {
    actor,
    all,
    reached: new Map(reached.map((each) => [each.person.id, each])),
    entries,
    offline: latestByPerson(offline),
    names,
    mayTakeBack: await takingBack(db, actor),
    now,
  };
  const people = [...groupBy(wanted, ({ recipient }) => recipient.id).values()];
  const rows = people.flatMap(([first, ...more]) =>
    first === undefined ? [] : [rowOf([first, ...more], found)],
  );
  return { rows, entries, openLinks: hasKey ? openLinksOf(all, new Set(), now) : [], hasKey };
}

/** Those who still read come first, then those who may offline, then groups and domains, then those who tried last. */
function inOrder(rows: readonly AfterRow[]): AfterRow[] {
  const rank = (row: AfterRow): number =>
    row.ways.length > 0 ? 0 : row.offlineUntil !== null ? 1 : standsForMany(row.kind) ? 2 : 3;
  return [...rows].sort(
    (a, b) =>
      rank(a) - rank(b) || (b.lastTry ?? 0) - (a.lastTry ?? 0) || (a.address < b.address ? -1 : 1),
  );
}

/**
 * What came of pulling access back, person by person: since when each is shut out, who tried since,
 * who still reads and until when, and what they took.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`
 */
export async function afterRevocation(
  deps: Pick<Deps, 'db' | 'clock'>,
  actor: StaffActor,
  input: AfterInput,
): Promise<After> {
  const db = deps.db.read;
  if ('document' in input) {
    const found = await findDocument(db, input.document);
    if (found === null) throw new ServiceError('no-document');
    const { document } = found;
    const { isTheirs } = needRecordOf(actor, {
      owner: document.ownerId,
      deputy: document.deputyId,
    });
    const { rows, entries, openLinks, hasKey } = await onDocument(
      deps,
      actor,
      input.document,
      () => true,
    );
    return {
      about: {
        dispatch: null,
        document: document.id,
        name: document.title,
        reference: document.reference,
      },
      rows: inOrder(rows),
      entries,
      openLinks,
      documentRevoked: document.revokedAt !== null,
      keyDestroyed: !hasKey && found.version.wrappedKey === null,
      mayReinstate: isTheirs && (await takingBack(db, actor))(document.revokedBy),
    };
  }
  const found = await findDispatch(db, input.dispatch);
  if (found === null) throw new ServiceError('no-dispatch');
  const { isTheirs } = needRecordOf(actor, { sender: found.dispatch.sentBy });
  const documents = new Set(
    (await grantsOf(db, { dispatch: input.dispatch })).map(({ document }) => document.id),
  );
  const each = [];
  for (const document of documents)
    each.push(
      await onDocument(deps, actor, document, ({ dispatch }) => dispatch.id === input.dispatch),
    );
  return {
    about: {
      dispatch: found.dispatch.id,
      document: null,
      name: found.dispatch.subject,
      reference: found.dispatch.reference,
    },
    rows: inOrder(each.flatMap(({ rows }) => rows)),
    entries: each.flatMap(({ entries }) => entries),
    openLinks: each.flatMap(({ openLinks }) => openLinks),
    documentRevoked: false,
    keyDestroyed: each.length > 0 && each.every(({ hasKey }) => !hasKey),
    mayReinstate: isTheirs,
  };
}

/**
 * Who tried and who took what is the record: of what is others', it is for anyone who reads all of it.
 * @throws ServiceError `NOT_ALLOWED`
 */
function needRecordOf(
  actor: StaffActor,
  of: Parameters<typeof reaches>[1],
): { readonly isTheirs: boolean } {
  const isTheirs = reaches(actor, of);
  if (!isTheirs && !holds(actor.role, 'read-record')) throw new ServiceError('record-of-others');
  return { isTheirs };
}

/** The same for the screen. */
export async function viewAfterRevocation(
  deps: Deps,
  actor: StaffActor,
  input: AfterInput,
): Promise<AfterPage> {
  const { entries: _entries, ...page } = await afterRevocation(deps, actor, input);
  return page;
}
