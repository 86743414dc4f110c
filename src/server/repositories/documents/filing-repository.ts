import 'server-only';
import { and, count, eq, isNull, max, ne, sql } from 'drizzle-orm';
import type { FolderId, MarkingId, TermsId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { documents, folders, markings } from '@/server/db/schema/documents';
import { savedTerms } from '@/server/db/schema/dispatching';
import { staff } from '@/server/db/schema/staff';

export async function listFolders(db: Reading | Transaction) {
  const here = db
    .select({
      folderId: documents.folderId,
      documents: sql<number | null>`count(*)`.as('documents'),
    })
    .from(documents)
    .groupBy(documents.folderId)
    .as('here');
  const rows = await db
    .select({
      id: folders.id,
      parentId: folders.parentId,
      name: folders.name,
      markingId: folders.markingId,
      createdBy: folders.createdBy,
      documents: here.documents,
    })
    .from(folders)
    .leftJoin(here, eq(here.folderId, folders.id))
    .orderBy(sql`${folders.name} COLLATE NOCASE`);
  return rows.map((row) => ({ ...row, documents: row.documents ?? 0 }));
}

/** The names of the folder that a document is in, and of its marking; empty: none. */
export async function folderAndMarking(
  db: Reading | Transaction,
  {
    folderId,
    markingId,
  }: { readonly folderId: FolderId | null; readonly markingId: MarkingId | null },
): Promise<{ readonly folder: string; readonly marking: string }> {
  const [folder] =
    folderId === null
      ? []
      : await db.select({ name: folders.name }).from(folders).where(eq(folders.id, folderId));
  const [marking] =
    markingId === null
      ? []
      : await db.select({ name: markings.name }).from(markings).where(eq(markings.id, markingId));
  return { folder: folder?.name ?? '', marking: marking?.name ?? '' };
}

/** Whether a folder of this name is there already, beside one with the given id. */
export async function folderNamed(
  tx: Transaction,
  parentId: FolderId | null,
  name: string,
  other?: FolderId,
): Promise<boolean> {
  const inParent = parentId === null ? isNull(folders.parentId) : eq(folders.parentId, parentId);
  return (
    (await tx.$count(
      folders,
      and(
        inParent,
        sql`${folders.name} = ${name} COLLATE NOCASE`,
        other === undefined ? undefined : ne(folders.id, other),
      ),
    )) > 0
  );
}

export async function insertFolder(
  tx: Transaction,
  row: typeof folders.$inferInsert,
): Promise<void> {
  await tx.insert(folders).values(row);
}

export async function changeFolderRow(
  tx: Transaction,
  id: FolderId,
  change: Partial<Pick<typeof folders.$inferSelect, 'name' | 'parentId' | 'markingId'>>,
): Promise<void> {
  await tx.update(folders).set(change).where(eq(folders.id, id));
}

export async function removeFolderRow(tx: Transaction, id: FolderId): Promise<void> {
  await tx.delete(folders).where(eq(folders.id, id));
}

export async function listMarkings(db: Reading | Transaction) {
  return db
    .select({
      id: markings.id,
      name: markings.name,
      meaning: markings.meaning,
      hidesTitles: markings.hidesTitles,
      mailWords: markings.mailWords,
      documents: count(documents.id),
    })
    .from(markings)
    .leftJoin(documents, eq(documents.markingId, markings.id))
    .groupBy(markings.id)
    .orderBy(markings.position);
}

/** Adds a marking at the end of the list, or renames one. */
export async function putMarkingRow(
  tx: Transaction,
  { id, ...row }: Omit<typeof markings.$inferInsert, 'position' | 'seal'>,
): Promise<void> {
  const [last] = await tx.select({ position: max(markings.position) }).from(markings);
  await tx
    .insert(markings)
    .values({ ...row, id, position: (last?.position ?? 0) + 1 })
    .onConflictDoUpdate({ target: markings.id, set: row });
}

/** Swaps a marking with the one before it, if there is one. */
export async function moveMarkingUp(tx: Transaction, id: MarkingId): Promise<void> {
  const order = await tx
    .select({ id: markings.id, position: markings.position })
    .from(markings)
    .orderBy(markings.position);
  const at = order.findIndex((each) => each.id === id);
  const [above, own] = [order[at - 1], order[at]];
  if (above === undefined || own === undefined) return;
  await tx.update(markings).set({ position: above.position }).where(eq(markings.id, own.id));
  await tx.update(markings).set({ position: own.position }).where(eq(markings.id, above.id));
}

/** New documents are marked with it in no folder any more. */
export async function unmarkFolders(tx: Transaction, id: MarkingId): Promise<void> {
  await tx.update(folders).set({ markingId: null }).where(eq(folders.markingId, id));
}

export async function removeMarkingRow(tx: Transaction, id: MarkingId): Promise<void> {
  await tx.delete(markings).where(eq(markings.id, id));
}

export async function listSavedTerms(db: Reading | Transaction) {
  const uses = sql<number>`(SELECT count(DISTINCT g.recipient_id) FROM grants g
    WHERE g.terms_id = ${sql.raw('"saved_terms"."id"')} AND g.revoked_at IS NULL)`;
  const rows = await db
    .select({ row: savedTerms, changedBy: staff.name, uses })
    .from(savedTerms)
    .innerJoin(staff, eq(staff.id, savedTerms.changedBy))
    .orderBy(sql`${savedTerms.name} COLLATE NOCASE`);
  return rows.map(({ row, changedBy, uses: people }) => ({
    ...row.body,
    id: row.id,
    name: row.name,
    version: row.version,
    uses: people,
    changedAt: row.changedAt,
    changedBy,
  }));
}

/** Adds saved terms, or changes them to their next version. */
export async function putTermsRow(
  tx: Transaction,
  row: Omit<typeof savedTerms.$inferInsert, 'version'>,
): Promise<void> {
  await tx
    .insert(savedTerms)
    .values(row)
    .onConflictDoUpdate({
      target: savedTerms.id,
      set: { ...row, version: sql`${savedTerms.version} + 1` },
    });
}

export async function removeTermsRow(tx: Transaction, id: TermsId): Promise<boolean> {
  return (
    (await tx.delete(savedTerms).where(eq(savedTerms.id, id)).returning({ id: savedTerms.id }))
      .length > 0
  );
}
