import 'server-only';
import { and, desc, eq, inArray, max } from 'drizzle-orm';
import type { DocumentId, GrantId, PaperId, StaffId } from '@/core/base/ids';
import type { PaperState } from '@/core/paper/paper-copy';
import type { Reading, Transaction } from '@/server/db/database';
import { grants } from '@/server/db/schema/access';
import { dispatches } from '@/server/db/schema/dispatching';
import { versions } from '@/server/db/schema/documents';
import { recipients } from '@/server/db/schema/people';
import { paperCopies } from '@/server/db/schema/reading';
import { staff } from '@/server/db/schema/staff';

export type PaperRow = typeof paperCopies.$inferSelect;

/** The number of the next copy of a grant: none is given twice, also where a print failed. */
export async function nextCopyNumber(tx: Transaction, grant: GrantId): Promise<number> {
  const [row] = await tx
    .select({ last: max(paperCopies.number) })
    .from(paperCopies)
    .where(eq(paperCopies.grantId, grant));
  return (row?.last ?? 0) + 1;
}

export async function insertPaper(
  tx: Transaction,
  row: typeof paperCopies.$inferInsert,
): Promise<void> {
  await tx.insert(paperCopies).values(row);
}

/** The copies on paper of a document, the newest first, with whose they are. */
export async function paperOf(db: Reading, document: DocumentId) {
  return db
    .select({
      paper: paperCopies,
      name: recipients.name,
      address: recipients.address,
      dispatchReference: dispatches.reference,
      version: versions.number,
      notedByName: staff.name,
    })
    .from(paperCopies)
    .innerJoin(recipients, eq(recipients.id, paperCopies.recipientId))
    .innerJoin(grants, eq(grants.id, paperCopies.grantId))
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .innerJoin(versions, eq(versions.id, paperCopies.versionId))
    .leftJoin(staff, eq(staff.id, paperCopies.notedBy))
    .where(eq(paperCopies.documentId, document))
    .orderBy(desc(paperCopies.madeAt), desc(paperCopies.number));
}

/** Of these copies those of this document. */
export async function findPapers(
  tx: Transaction,
  document: DocumentId,
  ids: readonly PaperId[],
): Promise<PaperRow[]> {
  return tx
    .select()
    .from(paperCopies)
    .where(and(eq(paperCopies.documentId, document), inArray(paperCopies.id, [...ids])));
}

export async function setPaperState(
  tx: Transaction,
  id: PaperId,
  noted: {
    readonly state: PaperState;
    readonly note: string;
    readonly notedBy: StaffId | null;
    readonly notedAt: number;
  },
): Promise<void> {
  await tx.update(paperCopies).set(noted).where(eq(paperCopies.id, id));
}
