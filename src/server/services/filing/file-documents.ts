import 'server-only';
import type { FileInput, Filed } from '@/contracts/document';
import type { DocumentId } from '@/core/base/ids';
import { newId } from '@/core/base/ids';
import { isLowered, wholeRules, type Rule } from '@/core/policy/rules';
import { holds, reaches } from '@/core/policy/permissions';
import { findDocuments, setFiled } from '@/server/repositories/documents/document-repository';
import { renewDaysAtMost } from '@/server/repositories/access/effective-end';
import { listFolders, listMarkings } from '@/server/repositories/documents/filing-repository';
import { insertConsent } from '@/server/repositories/policy/consent-repository';
import { listRules } from '@/server/repositories/policy/rules-repository';
import { listColleagues } from '@/server/repositories/staff/staff-repository';
import type { Transaction } from '@/server/db/database';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { needNothingLoosened, type Moved } from '@/server/services/policy/loosening';
import { record } from '@/server/services/base/record';
import { refuseForbidden } from '@/server/services/policy/within-rules';

/** Everything that is named must be there. */
async function checkNamed(
  tx: Transaction,
  { folderId, markingId, ownerId, deputyId }: FileInput,
): Promise<void> {
  if (folderId != null && !(await listFolders(tx)).some((folder) => folder.id === folderId))
    throw new ServiceError('folder-gone');
  if (markingId != null && !(await listMarkings(tx)).some((marking) => marking.id === markingId))
    throw new ServiceError('marking-gone');
  const colleagues = new Set((await listColleagues(tx)).map((each) => each.id));
  for (const id of [ownerId, deputyId])
    if (id != null && !colleagues.has(id)) throw new ServiceError('owner-unfit');
}

/**
 * Files documents: folder, marking, owner, deputy, attributes; all of them alike or none.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`, `CONFLICT`, `INVALID`
 */
export async function fileDocuments(
  deps: Deps,
  actor: StaffActor,
  input: FileInput,
): Promise<Filed> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const lowered = await lowersMarking(tx, input);
    if (lowered === null || lowered.leave === 'allowed')
      return { changed: await fileIn(deps, tx, actor, input, now), waits: false };
    if (lowered.leave === 'forbidden') await refuseForbidden(tx, [lowered]);
    if (Object.keys(input).some((name) => name !== 'documents' && name !== 'markingId'))
      throw new ServiceError('marking-lower-apart');
    await needOwn(tx, actor, input.documents);
    const id = newId('consent', deps.random);
    await insertConsent(tx, {
      id,
      kind: 'lower-marking',
      documents: input.documents,
      body: input.markingId ?? null,
      reason: '',
      askedBy: actor.id,
      askedAt: now,
    });
    await record(deps, tx, {
      action: 'consent.asked',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      details: {
        consent: id,
        kind: 'lower-marking',
        documents: [...input.documents],
        marking: input.markingId ?? null,
      },
    });
    return { changed: 0, waits: true };
  });
}

/** The rule about marking lower, where that is what is asked for. */
async function lowersMarking(
  tx: Transaction,
  { documents, markingId }: FileInput,
): Promise<Rule | null> {
  if (markingId === undefined) return null;
  const order = (await listMarkings(tx)).map(({ id }) => id);
  const lowers = (await findDocuments(tx, documents)).some((document) =>
    isLowered(order, document.markingId, markingId),
  );
  return lowers
    ? (wholeRules(await listRules(tx)).find(({ way }) => way === 'lower-marking') ?? null)
    : null;
}

/** @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` */
async function needOwn(tx: Transaction, actor: StaffActor, ids: FileInput['documents']) {
  const found = await findDocuments(tx, ids);
  if (found.length !== new Set(ids).size) throw new ServiceError('a-document-gone');
  if (
    !found.every((document) =>
      reaches(actor, { owner: document.ownerId, deputy: document.deputyId }),
    )
  )
    throw new ServiceError('some-of-others');
  return found;
}

/** Where a document stands, and where it will. */
function movedBy(
  { id, markingId, folderId }: Awaited<ReturnType<typeof findDocuments>>[number],
  change: Pick<FileInput, 'markingId' | 'folderId'>,
): Moved {
  const before = { document: id, marking: markingId, folder: folderId };
  return {
    before,
    after: {
      ...before,
      marking: change.markingId === undefined ? markingId : change.markingId,
      folder: change.folderId === undefined ? folderId : change.folderId,
    },
  };
}

/**
 * The same inside a change that somebody else makes, whatever the rules about markings say;
 * `approvedBy` agreed to it.
 * @returns how many were filed
 */
export async function fileIn(
  deps: Pick<Deps, 'recorder' | 'clock'>,
  tx: Transaction,
  actor: StaffActor,
  input: FileInput,
  now: number,
  approvedBy: StaffActor | null = null,
): Promise<number> {
  const { documents: ids, ...change } = input;
  if ((change.attributes !== undefined || change.title !== undefined) && ids.length !== 1)
    throw new ServiceError('one-at-a-time');
  if (Object.keys(change).length === 0) throw new ServiceError('nothing-to-change');
  const before = await needOwn(tx, actor, ids);
  await checkNamed(tx, input);
  if (approvedBy === null || !holds(approvedBy.role, 'settings'))
    await needNothingLoosened(
      tx,
      actor,
      before.map((document) => movedBy(document, change)),
    );
  if (
    before.some(
      (document) =>
        (change.ownerId ?? document.ownerId) ===
        (change.deputyId === undefined ? document.deputyId : change.deputyId),
    )
  )
    throw new ServiceError('owner-and-deputy');
  await setFiled(tx, ids, change);
  await renewDaysAtMost(tx, ids);
  await record(
    deps,
    tx,
    ...before.map((document) => ({
      action: 'document.filed' as const,
      outcome: 'done' as const,
      actor: { kind: 'staff' as const, id: actor.id },
      occurredAt: now,
      document: document.id satisfies DocumentId,
      details: { before: pick(document, Object.keys(change)), after: change },
    })),
  );
  return before.length;
}

function pick(
  document: Awaited<ReturnType<typeof findDocuments>>[number],
  keys: readonly string[],
) {
  return Object.fromEntries(keys.map((key) => [key, document[key as 'title']]));
}
