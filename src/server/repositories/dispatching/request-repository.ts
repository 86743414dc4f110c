import 'server-only';
import { and, desc, eq, inArray } from 'drizzle-orm';
import type { DispatchId, DocumentId, RecipientId, RequestId } from '@/core/base/ids';
import { OPEN_STATES, type Turn } from '@/core/policy/requests';
import type { Reading, Transaction } from '@/server/db/database';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents } from '@/server/db/schema/documents';
import { grants, requests } from '@/server/db/schema/access';
import { recipients } from '@/server/db/schema/people';
import { staff } from '@/server/db/schema/staff';

type RequestRecord = typeof requests.$inferSelect;

const whole = (db: Reading | Transaction) =>
  db
    .select({
      request: requests,
      grant: grants,
      recipient: recipients,
      document: documents,
      dispatch: dispatches,
      sender: staff,
    })
    .from(requests)
    .innerJoin(grants, eq(grants.id, requests.grantId))
    .innerJoin(recipients, eq(recipients.id, requests.recipientId))
    .innerJoin(documents, eq(documents.id, grants.documentId))
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .innerJoin(staff, eq(staff.id, dispatches.sentBy));

/** A request with everything it is about. */
export type WholeRequest = Awaited<ReturnType<typeof requestsByIds>>[number];

export async function requestsByIds(db: Reading | Transaction, ids: readonly RequestId[]) {
  return whole(db).where(inArray(requests.id, [...ids]));
}

/** Requests that nobody has answered, the oldest first. */
export async function waitingRequests(db: Reading, limit: number, dispatch?: DispatchId) {
  return whole(db)
    .where(
      and(
        inArray(requests.state, OPEN_STATES),
        dispatch === undefined ? undefined : eq(grants.dispatchId, dispatch),
      ),
    )
    .orderBy(requests.askedAt)
    .limit(limit);
}

/** What this person asked about a document, the newest first. */
export async function requestsOf(
  db: Reading | Transaction,
  recipient: RecipientId,
  document: DocumentId,
): Promise<RequestRecord[]> {
  const rows = await db
    .select({ request: requests })
    .from(requests)
    .innerJoin(grants, eq(grants.id, requests.grantId))
    .where(and(eq(requests.recipientId, recipient), eq(grants.documentId, document)))
    .orderBy(desc(requests.askedAt));
  return rows.map(({ request }) => request);
}

export async function insertRequest(
  tx: Transaction,
  row: typeof requests.$inferInsert,
): Promise<void> {
  await tx.insert(requests).values(row);
}

/** Answers a request that nobody has answered. @returns whether it could be */
export async function settleRequest(
  tx: Transaction,
  id: RequestId,
  answer: Pick<RequestRecord, 'state' | 'answer' | 'answeredBy' | 'answeredAt'>,
): Promise<boolean> {
  const rows = await tx
    .update(requests)
    .set(answer)
    .where(and(eq(requests.id, id), inArray(requests.state, OPEN_STATES)))
    .returning({ id: requests.id });
  return rows.length > 0;
}

/** Adds what was said about a request, which then waits for the other side. */
export async function addTurn(
  tx: Transaction,
  { id, turns }: Pick<RequestRecord, 'id' | 'turns'>,
  turn: Turn,
): Promise<void> {
  await tx
    .update(requests)
    .set({ turns: [...turns, turn], state: turn.by === 'staff' ? 'asked-back' : 'waiting' })
    .where(eq(requests.id, id));
}
