import 'server-only';
import { and, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { DispatchId, DocumentId, GrantId, RecipientId, LinkId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { effectiveEnd, notEnded } from '@/server/repositories/access/effective-end';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents } from '@/server/db/schema/documents';
import { grants, links } from '@/server/db/schema/access';
import { ledgerPairs } from '@/server/db/schema/ledger';
import { recipients } from '@/server/db/schema/people';
import { staff } from '@/server/db/schema/staff';

export async function countDispatches(tx: Transaction): Promise<number> {
  return tx.$count(dispatches);
}

export async function insertDispatch(
  tx: Transaction,
  dispatch: typeof dispatches.$inferInsert,
): Promise<void> {
  await tx.insert(dispatches).values(dispatch);
}

/** Somebody's link into a dispatch, switched off or not; `null` where they have none. */
export async function findLinkOf(
  tx: Transaction,
  dispatch: DispatchId,
  recipient: RecipientId,
): Promise<LinkId | null> {
  const [row] = await tx
    .select({ id: links.id })
    .from(links)
    .where(and(eq(links.dispatchId, dispatch), eq(links.recipientId, recipient)));
  return row?.id ?? null;
}

/** Puts another token in the place of a link's, which leads to its dispatch again. */
export async function putLinkToken(tx: Transaction, id: LinkId, token: string): Promise<void> {
  await tx.update(links).set({ token, offAt: null }).where(eq(links.id, id));
}

/** Makes a link lead nowhere. @returns whether it did lead somewhere */
export async function putLinkOff(tx: Transaction, id: LinkId, now: number): Promise<boolean> {
  const rows = await tx
    .update(links)
    .set({ offAt: now })
    .where(and(eq(links.id, id), isNull(links.offAt)))
    .returning({ id: links.id });
  return rows.length > 0;
}

/** The links of a dispatch that lead to it, by recipient. */
export async function linksOf(
  db: Reading | Transaction,
  dispatch: DispatchId,
): Promise<Map<RecipientId, string>> {
  const rows = await db
    .select({ recipientId: links.recipientId, token: links.token })
    .from(links)
    .where(and(eq(links.dispatchId, dispatch), isNull(links.offAt)));
  return new Map(rows.map(({ recipientId, token }) => [recipientId, token]));
}

/** What a dispatch carries, and whom it reaches. */
export async function documentsOfDispatch(
  db: Reading | Transaction,
  dispatch: DispatchId,
): Promise<{ readonly documents: DocumentId[]; readonly recipients: ReadonlySet<RecipientId> }> {
  const rows = await db
    .select({ documentId: grants.documentId, recipientId: grants.recipientId })
    .from(grants)
    .where(eq(grants.dispatchId, dispatch));
  return {
    documents: [...new Set(rows.map((row) => row.documentId))],
    recipients: new Set(rows.map((row) => row.recipientId)),
  };
}

export async function listDispatchRows(db: Reading, now: number) {
  const counted = db
    .select({
      dispatchId: grants.dispatchId,
      documents: sql<number | null>`count(distinct ${grants.documentId})`.as('documents'),
      people: sql<
        number | null
      >`count(distinct CASE WHEN ${recipients.kind} IN ('person', 'visitor') THEN ${grants.recipientId} END)`.as(
        'people',
      ),
      unknown: sql<number | null>`max(${recipients.kind} IN ('domain', 'link'))`.as('unknown'),
      live: sql<
        number | null
      >`sum(${grants.revokedAt} IS NULL AND ${notEnded('grants', 'documents', now)})`.as('live'),
      nextEnd: sql<number | null>`min(CASE WHEN ${grants.revokedAt} IS NULL
        AND ${effectiveEnd('grants', 'documents')} > ${now}
        THEN ${effectiveEnd('grants', 'documents')} END)`.as('next_end'),
    })
    .from(grants)
    .innerJoin(documents, eq(documents.id, grants.documentId))
    .innerJoin(recipients, eq(recipients.id, grants.recipientId))
    .groupBy(grants.dispatchId)
    .as('counted');
  const events = db
    .select({
      dispatchId: ledgerPairs.dispatchId,
      opens: sql<
        number | null
      >`sum(CASE WHEN ${ledgerPairs.kind} = 'opened' THEN ${ledgerPairs.entries} ELSE 0 END)`.as(
        'opens',
      ),
      refusals: sql<
        number | null
      >`sum(CASE WHEN ${ledgerPairs.kind} = 'refused' THEN ${ledgerPairs.entries} ELSE 0 END)`.as(
        'refusals',
      ),
    })
    .from(ledgerPairs)
    .where(inArray(ledgerPairs.kind, ['opened', 'refused']))
    .groupBy(ledgerPairs.dispatchId)
    .as('events');
  return db
    .select({
      id: dispatches.id,
      reference: dispatches.reference,
      subject: dispatches.subject,
      sentAt: dispatches.sentAt,
      sentBy: staff.name,
      documents: counted.documents,
      people: counted.people,
      unknown: counted.unknown,
      live: counted.live,
      nextEnd: counted.nextEnd,
      opens: events.opens,
      refusals: events.refusals,
    })
    .from(dispatches)
    .innerJoin(staff, eq(staff.id, dispatches.sentBy))
    .leftJoin(counted, eq(counted.dispatchId, dispatches.id))
    .leftJoin(events, eq(events.dispatchId, dispatches.id))
    .orderBy(desc(dispatches.sentAt), dispatches.id);
}

export async function findDispatch(db: Reading | Transaction, id: DispatchId) {
  const [row] = await db
    .select({ dispatch: dispatches, sentBy: staff.name, senderEmail: staff.email })
    .from(dispatches)
    .innerJoin(staff, eq(staff.id, dispatches.sentBy))
    .where(eq(dispatches.id, id));
  return row ?? null;
}

/** The dispatch each of these grants came with. */
export async function dispatchesOfGrants(
  db: Reading,
  ids: readonly GrantId[],
): Promise<
  Map<string, { readonly id: DispatchId; readonly reference: string; readonly subject: string }>
> {
  const rows = await db
    .select({
      grant: grants.id,
      id: dispatches.id,
      reference: dispatches.reference,
      subject: dispatches.subject,
    })
    .from(grants)
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .where(inArray(grants.id, [...ids]));
  return new Map(rows.map(({ grant, ...dispatch }) => [grant, dispatch]));
}
