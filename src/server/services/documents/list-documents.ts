import 'server-only';
import type { DocumentRow, DocumentsPage, ListDocumentsInput } from '@/contracts/document';
import type { Page } from '@/contracts/page';
import { splitOrder } from '@/core/base/order';
import type { DocumentId } from '@/core/base/ids';
import { withThoseBelow } from '@/core/content/folders';
import {
  countDocumentRows,
  listDocumentRows,
  type DocumentFilter,
} from '@/server/repositories/documents/document-repository';
import { listFolders, listMarkings } from '@/server/repositories/documents/filing-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { listColleagues } from '@/server/repositories/staff/staff-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { viewFolders } from '@/server/services/filing/manage-filing';

/** Rows sent at a time; the rest follows as somebody scrolls. */
const ROWS = 200;

function toRow({
  revokedAt,
  deputyId: _deputyId,
  ...row
}: Awaited<ReturnType<typeof listDocumentRows>>[number]): DocumentRow {
  return { ...row, unknown: row.unknown === 1, revoked: revokedAt !== null };
}

/**
 * A stretch of the documents that pass the filter, in the order asked for, else the newest first.
 * `own`: only those the caller may send.
 */
export async function listDocuments(
  deps: Deps,
  actor: StaffActor,
  { q, folder, marking, own, sort, after }: ListDocumentsInput,
): Promise<Page<DocumentRow>> {
  const folders =
    folder === undefined ? undefined : [...withThoseBelow(await listFolders(deps.db.read), folder)];
  const filter: DocumentFilter = {
    text: q,
    folders,
    marking,
    ownedBy: own === 'true' && actor.role !== 'administrator' ? actor.id : undefined,
  };
  const [rows, total] = await Promise.all([
    listDocumentRows(deps.db.read, filter, {
      limit: ROWS,
      after,
      order: sort === undefined ? undefined : splitOrder(sort),
    }),
    countDocumentRows(deps.db.read, filter),
  ]);
  return {
    rows: rows.map(toRow),
    total,
    next: rows.length === ROWS ? (rows.at(-1)?.id ?? null) : null,
  };
}

/** Documents by their ids, whichever there are. */
export async function documentRows(deps: Deps, ids: readonly DocumentId[]): Promise<DocumentRow[]> {
  return ids.length === 0
    ? []
    : (await listDocumentRows(deps.db.read, {}, { limit: ids.length, only: ids })).map(toRow);
}

/** The documents' page: their first stretch, with folders and what they can be filed under. */
export async function viewDocuments(
  deps: Deps,
  actor: StaffActor,
  input: ListDocumentsInput,
): Promise<DocumentsPage> {
  const [page, folders, markings, colleagues, organisation] = await Promise.all([
    listDocuments(deps, actor, input),
    viewFolders(deps),
    listMarkings(deps.db.read),
    listColleagues(deps.db.read),
    findOrganisation(deps.db.read),
  ]);
  return {
    ...page,
    recovery: organisation?.recoveryKey != null,
    folders,
    markings,
    colleagues,
    filter: input,
  };
}
