import 'server-only';
import { and, count, desc, eq, inArray, isNotNull, isNull, or, sql, type SQL } from 'drizzle-orm';
import type { DocumentOrder } from '@/core/base/order';
import type { DocumentId, FolderId, MarkingId, StaffId, VersionId } from '@/core/base/ids';
import { pagesKey } from '@/core/content/blob-keys';
import type { Standing } from '@/core/policy/levels';
import type { Reading, Transaction } from '@/server/db/database';
import { prepared } from '@/server/db/prepared';
import { documents, markings, uploads, versions } from '@/server/db/schema/documents';
import { grants } from '@/server/db/schema/access';
import { licences } from '@/server/db/schema/reading';
import { staff } from '@/server/db/schema/staff';
import { holding } from '@/server/repositories/access/holding';
import { behind, inOrder, type Ordering } from '@/server/repositories/base/ordering';

/** The contents that uploads and versions name: a power cut can leave a whole one among those that are not. */
export async function namedBlobKeys(db: Reading): Promise<Set<string>> {
  const rows = await db
    .select({ key: uploads.blobKey })
    .from(uploads)
    .union(db.select({ key: versions.blobKey }).from(versions));
  return new Set(rows.flatMap(({ key }) => [key, pagesKey(key)]));
}

export async function insertDocument(
  tx: Transaction,
  document: typeof documents.$inferInsert,
  version: typeof versions.$inferInsert,
): Promise<void> {
  await tx.insert(documents).values(document);
  await tx.insert(versions).values(version);
}

export async function referenceTaken(
  db: Reading | Transaction,
  reference: string,
): Promise<boolean> {
  const rows = await db
    .select({ id: documents.id })
    .from(documents)
    .where(eq(documents.reference, reference))
    .limit(1);
  return rows.length > 0;
}

/**
 * The documents of which some version holds this content and can be opened yet, those first of which
 * it is the current one.
 */
export async function documentsHolding(db: Reading | Transaction, contentMac: string) {
  const isCurrent = eq(versions.id, documents.versionId);
  return db
    .select({
      id: documents.id,
      reference: documents.reference,
      title: documents.title,
      ownerId: documents.ownerId,
      deputyId: documents.deputyId,
      revokedAt: documents.revokedAt,
      number: versions.number,
      isCurrent: sql<boolean>`${isCurrent}`.mapWith(Boolean),
    })
    .from(versions)
    .innerJoin(documents, eq(documents.id, versions.documentId))
    .where(
      and(
        eq(versions.contentMac, contentMac),
        isNotNull(versions.wrappedKey),
        isNull(versions.damagedAt),
      ),
    )
    .orderBy(desc(isCurrent), documents.createdAt);
}

/** Every reference that begins so. */
export async function referencesLike(db: Reading, beginning: string): Promise<ReadonlySet<string>> {
  const rows = await db
    .select({ reference: documents.reference })
    .from(documents)
    .where(sql`substr(${documents.reference}, 1, ${beginning.length}) = ${beginning}`);
  return new Set(rows.map(({ reference }) => reference));
}

/** What a list of documents is narrowed to. `ownedBy`: owner or deputy. */
export type DocumentFilter = {
  readonly text?: string | undefined;
  readonly folders?: readonly FolderId[] | undefined;
  readonly marking?: MarkingId | undefined;
  readonly ownedBy?: StaffId | undefined;
};

function passing({ text = '', folders, marking, ownedBy }: DocumentFilter): SQL | undefined {
  return and(
    text === ''
      ? undefined
      : holding(text, documents.title, documents.reference, staff.name, documents.attributes),
    folders === undefined ? undefined : inArray(documents.folderId, [...folders]),
    marking === undefined ? undefined : eq(documents.markingId, marking),
    ownedBy === undefined
      ? undefined
      : or(eq(documents.ownerId, ownedBy), eq(documents.deputyId, ownedBy)),
  );
}

export async function countDocumentRows(db: Reading, filter: DocumentFilter): Promise<number> {
  const [row] = await db
    .select({ rows: count() })
    .from(documents)
    .innerJoin(staff, eq(staff.id, documents.ownerId))
    .where(passing(filter));
  return row?.rows ?? 0;
}

// Counted for the rows that are shown, not for the whole table, unless it is ordered by them.
const PEOPLE = sql<number>`(SELECT count(DISTINCT ${grants.recipientId}) FROM ${grants}
  JOIN recipients r ON r.id = ${grants.recipientId} AND r.kind = 'person'
  WHERE ${grants.documentId} = ${documents.id})`;
const UNKNOWN = sql<number>`EXISTS (SELECT 1 FROM ${grants}
  JOIN recipients r ON r.id = ${grants.recipientId} AND r.kind IN ('domain', 'link')
  WHERE ${grants.documentId} = ${documents.id})`;
const OPENS = sql<number>`(SELECT count(*) FROM ${licences} WHERE ${licences.documentId} = ${documents.id})`;

/** What each order of the documents goes by. */
const ORDERS: Readonly<Record<DocumentOrder, SQL>> = {
  title: sql`${documents.title} COLLATE NOCASE`,
  reference: sql`${documents.reference} COLLATE NOCASE`,
  marking: sql`${markings.name} COLLATE NOCASE`,
  owner: sql`${staff.name} COLLATE NOCASE`,
  pages: sql`${versions.pages}`,
  bytes: sql`${versions.bytes}`,
  people: PEOPLE,
  opens: OPENS,
  protectedAt: sql`${documents.createdAt}`,
  // Not dispatched, sent, revoked.
  state: sql`CASE WHEN ${documents.revokedAt} IS NOT NULL THEN 2
    WHEN EXISTS (SELECT 1 FROM ${grants} WHERE ${grants.documentId} = ${documents.id}) THEN 1
    ELSE 0 END`,
};

const NEWEST_FIRST = { by: 'protectedAt', down: true } as const;

/** Which of the documents are read, and in which order. */
export type DocumentStretch = {
  readonly limit: number;
  readonly after?: DocumentId | undefined;
  readonly only?: readonly DocumentId[] | undefined;
  readonly order?: { readonly by: DocumentOrder; readonly down: boolean } | undefined;
};

/** What a document that was seen last is ordered by; null where it is there no more. */
async function lastSeen(db: Reading, ordering: Ordering, id: DocumentId) {
  const [row] = await db
    .select({ value: sql<string | number | null>`${ordering.expression}`, id: documents.id })
    .from(documents)
    .innerJoin(versions, eq(versions.id, documents.versionId))
    .innerJoin(staff, eq(staff.id, documents.ownerId))
    .leftJoin(markings, eq(markings.id, documents.markingId))
    .where(eq(documents.id, id));
  return row ?? null;
}

/**
 * Documents that pass the filter in the order asked for, else the newest first, those behind
 * `after` where it is given; or those of the given ids.
 */
export async function listDocumentRows(
  db: Reading,
  filter: DocumentFilter,
  { limit, after, only, order: { by, down } = NEWEST_FIRST }: DocumentStretch,
) {
  const ordering: Ordering = {
    expression: ORDERS[by],
    id: documents.id,
    down,
    // A document need not be marked; everything else it has.
    mayLack: by === 'marking',
  };
  const last = after === undefined ? null : await lastSeen(db, ordering, after);
  const given = only === undefined ? undefined : inArray(documents.id, [...only]);
  return db
    .select({
      id: documents.id,
      reference: documents.reference,
      title: documents.title,
      pages: versions.pages,
      isLocal: versions.isLocal,
      bytes: versions.bytes,
      version: versions.number,
      ownerId: documents.ownerId,
      ownerName: staff.name,
      deputyId: documents.deputyId,
      folderId: documents.folderId,
      markingId: documents.markingId,
      marking: markings.name,
      protectedAt: documents.createdAt,
      revokedAt: documents.revokedAt,
      people: PEOPLE,
      unknown: UNKNOWN,
      opens: OPENS,
    })
    .from(documents)
    .innerJoin(versions, eq(versions.id, documents.versionId))
    .innerJoin(staff, eq(staff.id, documents.ownerId))
    .leftJoin(markings, eq(markings.id, documents.markingId))
    .where(and(passing(filter), last === null ? undefined : behind(ordering, last), given))
    .orderBy(...inOrder(ordering))
    .limit(limit);
}

/** What of a document’s filing changes; what is absent stays. */
export type Filing = {
  readonly [K in 'folderId' | 'markingId' | 'ownerId' | 'deputyId' | 'attributes' | 'title']?:
    (typeof documents.$inferSelect)[K] | undefined;
};

/** Changes how documents are filed, all alike. */
export async function setFiled(
  tx: Transaction,
  ids: readonly DocumentId[],
  change: Filing,
): Promise<void> {
  // What is undefined is left out of the statement.
  await tx
    .update(documents)
    .set(change)
    .where(inArray(documents.id, [...ids]));
}

/** Makes a version the one that opens from now on. */
const documentById = prepared((db) =>
  db
    .select({ document: documents, version: versions, ownerName: staff.name })
    .from(documents)
    .innerJoin(versions, eq(versions.id, documents.versionId))
    .innerJoin(staff, eq(staff.id, documents.ownerId))
    .where(eq(documents.id, sql.placeholder('id')))
    .prepare(),
);

export async function findDocument(db: Reading | Transaction, id: DocumentId) {
  const [row] = await documentById(db).all({ id });
  return row ?? null;
}

/** Deletes the keys of every version of a document. */
export async function dropKeys(tx: Transaction, id: DocumentId): Promise<void> {
  await tx.update(versions).set({ wrappedKey: null }).where(eq(versions.documentId, id));
}

export async function findDocuments(
  db: Reading | Transaction,
  ids: readonly DocumentId[],
): Promise<(typeof documents.$inferSelect)[]> {
  return db
    .select()
    .from(documents)
    .where(inArray(documents.id, [...ids]));
}

/** Where the documents in these folders stand. */
export async function standingsIn(
  tx: Transaction,
  folders: readonly FolderId[],
): Promise<Standing[]> {
  return tx
    .select({ document: documents.id, marking: documents.markingId, folder: documents.folderId })
    .from(documents)
    .where(inArray(documents.folderId, [...folders]));
}

export async function documentsByReference(
  db: Reading | Transaction,
  references: readonly string[],
): Promise<(typeof documents.$inferSelect)[]> {
  return db
    .select()
    .from(documents)
    .where(inArray(documents.reference, [...references]));
}

/** @returns whether it was live until now */
export async function setDocumentRevoked(
  tx: Transaction,
  id: DocumentId,
  by: StaffId,
  now: number,
): Promise<boolean> {
  const rows = await tx
    .update(documents)
    .set({ revokedAt: now, revokedBy: by })
    .where(and(eq(documents.id, id), isNull(documents.revokedAt)))
    .returning({ id: documents.id });
  return rows.length > 0;
}

/** @returns whether it was revoked until now */
export async function setDocumentReinstated(tx: Transaction, id: DocumentId): Promise<boolean> {
  const rows = await tx
    .update(documents)
    .set({ revokedAt: null, revokedBy: null })
    .where(and(eq(documents.id, id), sql`${documents.revokedAt} IS NOT NULL`))
    .returning({ id: documents.id });
  return rows.length > 0;
}

/** Documents revoked at present, for the comparison with the ledger. */
export async function revokedDocumentIds(db: Reading): Promise<DocumentId[]> {
  const rows = await db
    .select({ id: documents.id })
    .from(documents)
    .where(sql`${documents.revokedAt} IS NOT NULL`);
  return rows.map((row) => row.id);
}

/** Those of these versions whose content is on their sender's machine alone. */
export async function localAmong(
  db: Reading | Transaction,
  ids: readonly VersionId[],
): Promise<ReadonlySet<VersionId>> {
  const rows = await db
    .select({ id: versions.id })
    .from(versions)
    .where(and(inArray(versions.id, [...ids]), eq(versions.isLocal, true)));
  return new Set(rows.map(({ id }) => id));
}

/** Plain bytes of these versions together. */
export async function bytesOfVersions(
  db: Reading | Transaction,
  ids: readonly VersionId[],
): Promise<number> {
  const rows = await db
    .select({ bytes: versions.bytes })
    .from(versions)
    .where(inArray(versions.id, [...ids]));
  return rows.reduce((sum, { bytes }) => sum + bytes, 0);
}

export async function allReferences(db: Reading): Promise<string[]> {
  return (await db.select({ reference: documents.reference }).from(documents)).map(
    ({ reference }) => reference,
  );
}
