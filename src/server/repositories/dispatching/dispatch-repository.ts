import 'server-only';
import { and, eq, inArray, isNull, type SQL } from 'drizzle-orm';
import type { DispatchId, DocumentId, GrantId, RecipientId, LinkId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { dispatches } from '@/server/db/schema/dispatching';
import { grants, links } from '@/server/db/schema/access';
import { staff } from '@/server/db/schema/staff';

export async function countDispatches(db: Reading | Transaction): Promise<number> {
  return db.$count(dispatches);
}

export async function insertDispatch(
  tx: Transaction,
  dispatch: typeof dispatches.$inferInsert,
): Promise<void> {
  await tx.insert(dispatches).values(dispatch);
}

/** Whose link into a dispatch; `null`: the one of files made for everybody it was sent to. */
function linkFor(dispatch: DispatchId, recipient: RecipientId | null): SQL | undefined {
  return and(
    eq(links.dispatchId, dispatch),
    recipient === null ? isNull(links.recipientId) : eq(links.recipientId, recipient),
  );
}

/** A link into a dispatch, switched off or not; `null` where there is none. */
export async function findLinkOf(
  tx: Transaction,
  dispatch: DispatchId,
  recipient: RecipientId | null,
): Promise<LinkId | null> {
  const [row] = await tx.select({ id: links.id }).from(links).where(linkFor(dispatch, recipient));
  return row?.id ?? null;
}

/** The link of files made for everybody a dispatch was sent to, and whether it leads there; `null`: none was made. */
export async function sharedLinkOf(
  db: Reading,
  dispatch: DispatchId,
): Promise<{ readonly off: boolean } | null> {
  const [row] = await db.select({ offAt: links.offAt }).from(links).where(linkFor(dispatch, null));
  return row === undefined ? null : { off: row.offAt !== null };
}

export async function insertLink(tx: Transaction, link: typeof links.$inferInsert): Promise<void> {
  await tx.insert(links).values(link);
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

type LinkRow = { readonly recipientId: RecipientId | null; readonly token: string };

async function linkRows(
  db: Reading | Transaction,
  dispatch: DispatchId,
  which: SQL | undefined,
): Promise<LinkRow[]> {
  return db
    .select({ recipientId: links.recipientId, token: links.token })
    .from(links)
    .where(and(eq(links.dispatchId, dispatch), which));
}

/** The tokens of links that are somebody's own. */
function byRecipient(rows: readonly LinkRow[]): Map<RecipientId, string> {
  return new Map(
    rows.flatMap(({ recipientId, token }) => (recipientId === null ? [] : [[recipientId, token]])),
  );
}

/** The links of a dispatch that lead to it, by recipient. */
export async function linksOf(
  db: Reading | Transaction,
  dispatch: DispatchId,
): Promise<Map<RecipientId, string>> {
  return byRecipient(await linkRows(db, dispatch, isNull(links.offAt)));
}

/** Everybody who has a link into a dispatch, whether it leads there or was switched off. */
export async function allLinksOf(
  tx: Transaction,
  dispatch: DispatchId,
): Promise<Map<RecipientId, string>> {
  return byRecipient(await linkRows(tx, dispatch, undefined));
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
