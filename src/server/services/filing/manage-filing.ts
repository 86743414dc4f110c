import 'server-only';
import { newId, type FolderId, type MarkingId, type StaffId, type TermsId } from '@/core/base/ids';
import { withThoseBelow, wouldLoop, type FolderNode } from '@/core/content/folders';
import type { Level } from '@/core/policy/levels';
import { holds } from '@/core/policy/permissions';
import type { FolderRow } from '@/contracts/folder';
import type { TermsPage } from '@/contracts/saved-terms';
import type { Transaction } from '@/server/db/database';
import {
  changeFolderRow,
  folderNamed,
  insertFolder,
  listFolders,
  listSavedTerms,
  listMarkings,
  moveMarkingUp,
  putMarkingRow,
  removeFolderRow,
  removeMarkingRow,
  unmarkFolders,
  removeTermsRow,
} from '@/server/repositories/documents/filing-repository';
import { listCeilings, removeCeilingRow } from '@/server/repositories/policy/ceiling-repository';
import { listDefaults, removeDefaultsRow } from '@/server/repositories/policy/defaults-repository';
import { standingsIn } from '@/server/repositories/documents/document-repository';
import { renewDaysAtMost } from '@/server/repositories/access/effective-end';
import { aboutSettings } from '@/server/services/base/about-settings';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { needNothingLoosened } from '@/server/services/policy/loosening';
import { viewCeilings } from '@/server/services/policy/manage-ceilings';
import { viewDefaults } from '@/server/services/policy/manage-defaults';
import { viewRules } from '@/server/services/policy/manage-rules';
import { record } from '@/server/services/base/record';

type Nothing = Record<string, never>;

/** Folders with how many documents are in each and below it. */
export async function viewFolders(deps: Deps): Promise<FolderRow[]> {
  const rows = await listFolders(deps.db.read);
  const own = new Map(rows.map((row) => [row.id, row.documents]));
  return rows.map(({ createdBy: _, ...row }) => ({
    ...row,
    documents: [...withThoseBelow(rows, row.id)].reduce((sum, id) => sum + (own.get(id) ?? 0), 0),
  }));
}

/** What a level had set goes with it. */
async function removeRulesOf(tx: Transaction, level: Level, subject: string): Promise<void> {
  await removeCeilingRow(tx, level, subject);
  await removeDefaultsRow(tx, level, subject);
}

async function needFreeName(
  tx: Transaction,
  parentId: FolderId | null,
  name: string,
  other?: FolderId,
): Promise<void> {
  if (await folderNamed(tx, parentId, name, other))
    throw new ServiceError('folder-name-taken', { name });
}

/** @throws ServiceError `CONFLICT` where the name is taken, `NOT_FOUND` */
export async function makeFolder(
  deps: Deps,
  actor: StaffActor,
  { name, parentId }: { readonly name: string; readonly parentId: FolderId | null },
): Promise<{ readonly id: FolderId }> {
  const id = newId('folder', deps.random);
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    if (parentId !== null && !(await listFolders(tx)).some((folder) => folder.id === parentId))
      throw new ServiceError('no-folder');
    await needFreeName(tx, parentId, name);
    await insertFolder(tx, { id, parentId, name, createdBy: actor.id, createdAt: now });
    await record(deps, tx, aboutSettings(actor, now, { folder: id, made: name }));
  });
  return { id };
}

/** @throws ServiceError `NOT_ALLOWED` where somebody else made it */
function needOwnFolder(
  actor: StaffActor,
  folder: { readonly name: string; readonly createdBy: StaffId | null },
): void {
  if (holds(actor.role, 'settings') || folder.createdBy === actor.id) return;
  throw new ServiceError('folder-of-others', { name: folder.name });
}

async function setsOnFolder(tx: Transaction, id: FolderId): Promise<boolean> {
  return [...(await listCeilings(tx)), ...(await listDefaults(tx))].some(
    ({ level, subject }) => level === 'folder' && subject === id,
  );
}

/**
 * @throws ServiceError `NOT_ALLOWED` where a document in it, or below it, would come from under
 * what an administrator set
 */
async function needFolderMovable(
  tx: Transaction,
  actor: StaffActor,
  all: readonly FolderNode[],
  id: FolderId,
  parentId: FolderId | null,
): Promise<void> {
  const parents = new Map(
    all.map((folder) => [folder.id, folder.id === id ? parentId : folder.parentId]),
  );
  const inside = await standingsIn(tx, [...withThoseBelow(all, id)]);
  await needNothingLoosened(
    tx,
    actor,
    inside.map((standing) => ({ before: standing, after: standing })),
    parents,
  );
}

/**
 * Renames or moves a folder. @throws ServiceError `CONFLICT` where it would land in itself or the
 * name is taken, `NOT_FOUND`
 */
export async function changeFolder(
  deps: Deps,
  actor: StaffActor,
  {
    id,
    name,
    parentId,
    markingId,
  }: {
    readonly id: FolderId;
    readonly name?: string | undefined;
    readonly parentId?: FolderId | null | undefined;
    readonly markingId?: MarkingId | null | undefined;
  },
): Promise<Nothing> {
  await deps.db.write(async (tx) => {
    const all = await listFolders(tx);
    const before = all.find((folder) => folder.id === id);
    if (before === undefined) throw new ServiceError('no-folder');
    const after = {
      name: name ?? before.name,
      parentId: parentId === undefined ? before.parentId : parentId,
      markingId: markingId === undefined ? before.markingId : markingId,
    };
    if (markingId != null && !(await listMarkings(tx)).some((each) => each.id === markingId))
      throw new ServiceError('no-marking');
    if (wouldLoop(all, id, after.parentId)) throw new ServiceError('folder-in-itself');
    await needFreeName(tx, after.parentId, after.name, id);
    needOwnFolder(actor, before);
    if (after.parentId !== before.parentId)
      await needFolderMovable(tx, actor, all, id, after.parentId);
    await changeFolderRow(tx, id, after);
    if (after.parentId !== before.parentId) await renewDaysAtMost(tx, 'all');
    await record(
      deps,
      tx,
      aboutSettings(actor, deps.clock.now(), {
        folder: id,
        before: before.name,
        after: after.name,
        parentBefore: before.parentId,
        parent: after.parentId,
        markingIdBefore: before.markingId,
        markingId: after.markingId,
      }),
    );
  });
  return {};
}

/** Removes an empty folder. @throws ServiceError `CONFLICT` where something is in it */
export async function removeFolder(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: FolderId },
): Promise<Nothing> {
  await deps.db.write(async (tx) => {
    const all = await listFolders(tx);
    const folder = all.find((each) => each.id === id);
    if (folder === undefined) throw new ServiceError('no-folder');
    needOwnFolder(actor, folder);
    if (!holds(actor.role, 'settings') && (await setsOnFolder(tx, id)))
      throw new ServiceError('folder-has-limits', { name: folder.name });
    if (folder.documents > 0 || all.some((each) => each.parentId === id))
      throw new ServiceError('folder-not-empty', { name: folder.name });
    await removeFolderRow(tx, id);
    await removeRulesOf(tx, 'folder', id);
    await record(
      deps,
      tx,
      aboutSettings(actor, deps.clock.now(), { folder: id, removed: folder.name }),
    );
  });
  return {};
}

/** Saved terms, markings, ceilings and defaults, for anyone who chooses among them. */
export async function viewTerms(deps: Deps): Promise<TermsPage> {
  const [terms, markings, folders, ceilings, defaults, rules] = await Promise.all([
    listSavedTerms(deps.db.read),
    listMarkings(deps.db.read),
    viewFolders(deps),
    viewCeilings(deps),
    viewDefaults(deps),
    viewRules(deps),
  ]);
  return { terms, markings, folders, ceilings, defaults, rules };
}

function needFreeMarkingName(
  all: readonly { readonly id: MarkingId; readonly name: string }[],
  name: string,
  own: MarkingId,
): void {
  const same = (each: string) => each.toLowerCase() === name.toLowerCase();
  if (all.some((each) => each.id !== own && same(each.name)))
    throw new ServiceError('marking-name-taken', { name });
}

/** Adds a marking, renames one or moves it before the one that it comes after; the documents that bear it keep it. */
export async function putMarking(
  deps: Deps,
  actor: StaffActor,
  {
    up = false,
    hidesTitles: hides,
    mailWords: words,
    ...input
  }: {
    readonly id: MarkingId | null;
    readonly name: string;
    readonly meaning: string;
    readonly hidesTitles?: boolean | undefined;
    readonly mailWords?: string | undefined;
    readonly up?: boolean | undefined;
  },
): Promise<{ readonly id: MarkingId }> {
  const id = input.id ?? newId('marking', deps.random);
  await deps.db.write(async (tx) => {
    const all = await listMarkings(tx);
    const before = all.find((each) => each.id === id);
    if (input.id !== null && before === undefined) throw new ServiceError('no-marking');
    needFreeMarkingName(all, input.name, id);
    const was = before ?? { name: null, meaning: null, hidesTitles: null, mailWords: null };
    const hidesTitles = hides ?? was.hidesTitles ?? false;
    const mailWords = words ?? was.mailWords ?? '';
    await putMarkingRow(tx, { ...input, id, hidesTitles, mailWords });
    if (up) await moveMarkingUp(tx, id);
    await record(
      deps,
      tx,
      aboutSettings(actor, deps.clock.now(), {
        marking: id,
        before: was.name,
        after: input.name,
        meaningBefore: was.meaning,
        meaning: input.meaning,
        hidesTitlesBefore: was.hidesTitles,
        hidesTitles,
        mailWordsBefore: was.mailWords,
        mailWords,
        ...(up ? { up } : {}),
      }),
    );
  });
  return { id };
}

/** Removes a marking that no document bears. @throws ServiceError `CONFLICT` */
export async function removeMarking(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: MarkingId },
): Promise<Nothing> {
  await deps.db.write(async (tx) => {
    const marking = (await listMarkings(tx)).find((each) => each.id === id);
    if (marking === undefined) throw new ServiceError('no-marking');
    if (marking.documents > 0)
      throw new ServiceError('marking-in-use', {
        name: marking.name,
        documents: marking.documents,
      });
    await unmarkFolders(tx, id);
    await removeMarkingRow(tx, id);
    await removeRulesOf(tx, 'marking', id);
    await record(
      deps,
      tx,
      aboutSettings(actor, deps.clock.now(), { marking: id, removed: marking.name }),
    );
  });
  return {};
}

/** Offers terms no longer. What was sent with them stays. @throws ServiceError `NOT_FOUND` */
export async function removeTerms(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: TermsId },
): Promise<Nothing> {
  await deps.db.write(async (tx) => {
    const terms = (await listSavedTerms(tx)).find((each) => each.id === id);
    if (terms === undefined || !(await removeTermsRow(tx, id))) throw new ServiceError('no-terms');
    await record(
      deps,
      tx,
      aboutSettings(actor, deps.clock.now(), { terms: id, removed: terms.name }),
    );
  });
  return {};
}
