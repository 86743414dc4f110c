import 'server-only';
import type { GrantRow } from '@/contracts/dispatch';
import { holds, reaches } from '@/core/policy/permissions';
import { groupBy } from '@/core/base/group';
import type { GrantId } from '@/core/base/ids';
import { compileDocument, type CompiledGrant } from '@/core/policy/compile';
import { RIGHTS } from '@/core/policy/rights';
import {
  grantsOf,
  opensByGrant,
  readByGrant,
  refusalsOf,
  toFacts,
  usedOf,
  type GrantRecord,
  type GrantsOf,
} from '@/server/repositories/access/grant-reader';
import { runningOffline } from '@/server/repositories/access/after-repository';
import { aidsFor } from '@/server/repositories/reading/aids-repository';
import { passedOnFrom } from '@/server/repositories/access/wider-repository';
import { recipientsByIds } from '@/server/repositories/people/people-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ceilingFinder } from '@/server/services/policy/document-policy';

/** What a grant comes to where ceilings, or the grant it was passed on from, allow less than it gives. */
function cappedBy(grant: GrantRecord, compiled: CompiledGrant | undefined): GrantRow['capped'] {
  if (compiled === undefined) return null;
  const { terms, taken } = compiled.effective;
  const { prints } = terms;
  const rights = RIGHTS.filter((right) => compiled.rights.has(right));
  const until = Number.isFinite(compiled.until) ? compiled.until : null;
  if (rights.length === grant.rights.length && until === grant.untilAt && prints === grant.prints)
    return null;
  return {
    rights,
    until,
    prints,
    byCeiling: taken.size > 0 || terms.until !== grant.untilAt || prints !== grant.prints,
  };
}

/** Every grant of these as it comes out, compiled with what bounds it. */
async function compiledAll(
  deps: Pick<Deps, 'db'>,
  rows: readonly {
    readonly grant: GrantRecord;
    readonly document: Parameters<Awaited<ReturnType<typeof ceilingFinder>>>[0];
  }[],
): Promise<ReadonlyMap<GrantId, CompiledGrant>> {
  const [ceilingsOf, above] = [
    await ceilingFinder(deps.db.read),
    await passedOnFrom(
      deps.db.read,
      rows.map(({ grant }) => grant),
    ),
  ];
  // An end that follows from the first open is an end like any other.
  const opened = [...rows.map(({ grant }) => grant), ...above]
    .filter(({ conditions }) => conditions?.within != null)
    .map(({ id }) => id);
  const used =
    opened.length === 0 ? new Map<string, never>() : await usedOf(deps.db.read, opened, null);
  const found = new Map<GrantId, CompiledGrant>();
  for (const [id, own] of groupBy(rows, ({ grant }) => grant.documentId)) {
    const [first] = own;
    if (first === undefined) continue;
    const here = new Map(
      [
        ...above.filter(({ documentId }) => documentId === id),
        ...own.map(({ grant }) => grant),
      ].map((grant) => [grant.id, grant]),
    );
    const { byAddressee } = compileDocument({
      id,
      revoked: false,
      keyDestroyed: false,
      ceilings: ceilingsOf(first.document),
      grants: [...here.values()].map((grant) => toFacts(grant, used.get(grant.id))),
    });
    for (const list of byAddressee.person.values())
      for (const compiled of list) found.set(compiled.facts.id, compiled);
  }
  return found;
}

/** Whether somebody reads the record of everything, or of this as what is theirs. */
function mayReadRecord(
  { id, role }: Pick<StaffActor, 'id' | 'role'>,
  { document, dispatch }: Awaited<ReturnType<typeof grantsOf>>[number],
): boolean {
  if (holds(role, 'read-record')) return true;
  const theirs = [document.ownerId, document.deputyId, dispatch.sentBy];
  return holds(role, 'read-own-record') && theirs.includes(id);
}

async function offlineByGrant(
  { db, clock }: Pick<Deps, 'db' | 'clock'>,
  ids: readonly GrantId[],
): Promise<ReadonlyMap<GrantId, NonNullable<GrantRow['offline']>>> {
  const running = await runningOffline(db.read, ids, clock.now());
  const found = new Map<GrantId, NonNullable<GrantRow['offline']>>();
  // A grant to many is read by several people.
  for (const { grant, from, until } of running) {
    const before = found.get(grant);
    found.set(grant, {
      from: Math.min(from, before?.from ?? from),
      until: Math.max(until, before?.until ?? until),
    });
  }
  return found;
}

/** The grants of a dispatch, of a document or of a person, as lists show them. */
export async function grantRows(
  deps: Deps,
  actor: Pick<StaffActor, 'id' | 'role'>,
  of: GrantsOf,
): Promise<readonly GrantRow[]> {
  const rows = await grantsOf(deps.db.read, of);
  const readable = rows.filter((row) => mayReadRecord(actor, row));
  const [aids, compiled, opens, read, refusals, offline] = await Promise.all([
    aidsFor(deps.db.read, [...new Set(rows.map((row) => row.recipient.id))]),
    compiledAll(deps, rows),
    opensByGrant(
      deps.db.read,
      rows.map((row) => row.grant.id),
    ),
    readByGrant(
      deps.db.read,
      readable.map((row) => row.grant.id),
    ),
    refusalsOf(deps.db.read, [...new Set(rows.map((row) => row.document.id))]),
    offlineByGrant(
      deps,
      readable.map((row) => row.grant.id),
    ),
  ]);
  const givers = new Map(
    (
      await recipientsByIds(deps.db.read, [
        ...new Set(rows.flatMap(({ grant }) => grant.passedOnBy ?? [])),
      ])
    ).map(({ id, name, address }) => [id, name === '' ? address : name]),
  );
  return rows.map(({ grant, recipient, document, dispatch, token, linkOffAt, hasKey }) => ({
    id: grant.id,
    dispatchId: dispatch.id,
    dispatchReference: dispatch.reference,
    dispatchSubject: dispatch.subject,
    sentAt: dispatch.sentAt,
    documentId: document.id,
    documentTitle: document.title,
    documentReference: document.reference,
    documentRevoked: document.revokedAt !== null,
    keyDestroyed: hasKey === 0,
    blocked: recipient.blocked,
    recipientId: recipient.id,
    kind: recipient.kind,
    parent: grant.parentId,
    passedOnBy: grant.passedOnBy === null ? null : (givers.get(grant.passedOnBy) ?? ''),
    name: recipient.name,
    address: recipient.address,
    organisation: recipient.organisation,
    zone: recipient.zone,
    rights: grant.rights,
    from: grant.fromAt,
    until: grant.untilAt,
    prints: grant.prints,
    printsMade: grant.printsMade,
    conditions: grant.conditions,
    capped: cappedBy(grant, compiled.get(grant.id)),
    revokedAt: grant.revokedAt,
    revision: grant.revision,
    givenAt: grant.givenAt,
    opens: opens.get(grant.id)?.opens ?? 0,
    lastOpen: opens.get(grant.id)?.last ?? null,
    read: read.get(grant.id) ?? null,
    offline: offline.get(grant.id) ?? null,
    refusals: refusals.get(`${recipient.id} ${document.id}`) ?? 0,
    readingAids: aids.some(
      (each) => each.recipientId === recipient.id && each.ownerId === document.ownerId,
    ),
    mayChange: reaches(actor, {
      sender: dispatch.sentBy,
      owner: document.ownerId,
      deputy: document.deputyId,
    }),
    // An open link lets in anyone who has it: only who made it sees it, and nobody else on the staff reads by it.
    link:
      recipient.kind === 'link' && dispatch.sentBy !== actor.id
        ? ''
        : `${deps.publicUrl}/r/${token}`,
    linkOff: linkOffAt !== null,
  }));
}
