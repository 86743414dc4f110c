import 'server-only';
import { and, eq, gt, inArray, isNotNull, isNull, or, sql } from 'drizzle-orm';
import type { DispatchId, DocumentId, GrantId, RecipientId, StaffId } from '@/core/base/ids';
import type { DeliveryForm } from '@/core/policy/delivery';
import type { Reading, Transaction } from '@/server/db/database';
import type { GrantRecord } from '@/server/repositories/access/grant-reader';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents } from '@/server/db/schema/documents';
import { grants, links } from '@/server/db/schema/access';
import { recipients } from '@/server/db/schema/people';

export const among = (ids: readonly string[]) =>
  sql`(SELECT value FROM json_each(${JSON.stringify(ids)}))`;

/** Grants beneath these that are not revoked; of all of them, or only of those that change as the one above does. */
export async function liveBeneath(
  tx: Transaction,
  ids: readonly GrantId[],
  which: 'all' | 'following' = 'all',
): Promise<GrantRecord[]> {
  const below =
    which === 'following'
      ? sql`${grants.parentId} IN ${among(ids)} AND ${grants.follows}`
      : sql`${grants.id} IN (WITH RECURSIVE below(id) AS (SELECT g.id FROM grants g
        WHERE g.parent_id IN ${among(ids)} UNION SELECT g.id FROM grants g
        JOIN below ON g.parent_id = below.id) SELECT id FROM below)`;
  return tx
    .select()
    .from(grants)
    .where(and(below, isNull(grants.revokedAt)));
}

/** The grants that these were passed on from, and those above them in turn. */
export async function passedOnFrom(
  db: Reading | Transaction,
  rows: readonly GrantRecord[],
): Promise<GrantRecord[]> {
  const parents = rows.flatMap(({ passedOnBy, parentId }) =>
    passedOnBy === null || parentId === null ? [] : [parentId],
  );
  if (parents.length === 0) return [];
  return db
    .select()
    .from(grants)
    .where(
      sql`${grants.id} IN (WITH RECURSIVE above(id) AS (SELECT value
        FROM json_each(${JSON.stringify(parents)}) UNION SELECT g.parent_id FROM grants g
        JOIN above ON g.id = above.id WHERE g.passed_on_by IS NOT NULL
        AND g.parent_id IS NOT NULL) SELECT id FROM above)`,
    );
}

/** To how many a grant was passed on, those aside that were revoked. */
export async function countPassedOn(tx: Transaction, id: GrantId): Promise<number> {
  return tx.$count(
    grants,
    and(eq(grants.parentId, id), isNotNull(grants.passedOnBy), isNull(grants.revokedAt)),
  );
}

/** Grants beneath these that were revoked together with them. */
export async function revokedAlong(tx: Transaction, ids: readonly GrantId[]): Promise<GrantId[]> {
  const rows = await tx.all<{ id: GrantId }>(sql`
    WITH RECURSIVE along(id, at) AS (
      SELECT g.id, g.revoked_at FROM grants g WHERE g.id IN ${among(ids)}
      UNION SELECT g.id, g.revoked_at FROM grants g JOIN along ON g.parent_id = along.id
      AND g.revoked_at = along.at AND g.left_at IS NULL
    ) SELECT id FROM along WHERE id NOT IN ${among(ids)}`);
  return rows.map(({ id }) => id);
}

/** What somebody passed on of a document, to whom. */
export async function passedOnBy(db: Reading, giver: RecipientId, document: DocumentId) {
  return db
    .select({
      address: recipients.address,
      rights: grants.rights,
      until: grants.untilAt,
      revokedAt: grants.revokedAt,
    })
    .from(grants)
    .innerJoin(recipients, eq(recipients.id, grants.recipientId))
    .where(and(eq(grants.passedOnBy, giver), eq(grants.documentId, document)))
    .orderBy(grants.givenAt);
}

export async function renameAddressee(
  tx: Transaction,
  address: string,
  name: string,
): Promise<void> {
  await tx.update(recipients).set({ name }).where(eq(recipients.address, address));
}

/** Where most people at a domain, `@yard.example`, are said to work; empty where nobody there is known. */
export async function organisationAt(db: Reading | Transaction, domain: string): Promise<string> {
  const [row] = await db.all<{ organisation: string }>(
    sql`SELECT organisation FROM recipients WHERE kind = 'person' AND organisation <> ''
      AND substr(address, instr(address, '@')) = ${domain} GROUP BY organisation
      ORDER BY count(*) DESC, organisation LIMIT 1`,
  );
  return row?.organisation ?? '';
}

export type WiderGrant = {
  readonly grant: GrantRecord;
  readonly form: DeliveryForm;
  readonly sentBy: StaffId;
  readonly ownerId: StaffId;
  readonly deputyId: StaffId | null;
};

/** What an addressee that stands for many can open now or later, with who answers for it. */
export async function liveOfAddressee(
  db: Reading | Transaction,
  id: RecipientId,
  now: number,
): Promise<WiderGrant[]> {
  return db
    .select({
      grant: grants,
      form: dispatches.form,
      sentBy: dispatches.sentBy,
      ownerId: documents.ownerId,
      deputyId: documents.deputyId,
    })
    .from(grants)
    .innerJoin(documents, eq(documents.id, grants.documentId))
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .where(
      and(
        eq(grants.recipientId, id),
        isNull(grants.revokedAt),
        isNull(documents.revokedAt),
        or(isNull(grants.untilAt), gt(grants.untilAt, now)),
      ),
    );
}

/** What people have of their own in some dispatches, revoked or not. */
export async function ownIn(
  tx: Transaction,
  people: readonly RecipientId[],
  dispatches: readonly DispatchId[],
): Promise<GrantRecord[]> {
  return tx
    .select()
    .from(grants)
    .where(
      and(inArray(grants.recipientId, [...people]), inArray(grants.dispatchId, [...dispatches])),
    );
}

export async function ownGrantIn(
  tx: Transaction,
  recipient: RecipientId,
  dispatch: DispatchId,
  document: DocumentId,
): Promise<GrantRecord | null> {
  const [row] = await tx
    .select()
    .from(grants)
    .where(
      and(
        eq(grants.recipientId, recipient),
        eq(grants.dispatchId, dispatch),
        eq(grants.documentId, document),
      ),
    );
  return row ?? null;
}

/**
 * Of grants beneath one of a group, those whose people another group of the same dispatch gives them
 * to, with its grant.
 */
export async function givenByOtherGroups(
  tx: Transaction,
  ids: readonly GrantId[],
): Promise<{ readonly id: GrantId; readonly above: GrantId }[]> {
  return tx.all<{ id: GrantId; above: GrantId }>(sql`
    SELECT own.id AS id, min(other.id) AS above FROM grants own
    JOIN grants other ON other.dispatch_id = own.dispatch_id
    AND other.document_id = own.document_id AND other.id <> own.parent_id
    AND other.revoked_at IS NULL
    JOIN recipients addressee ON addressee.id = other.recipient_id AND addressee.kind = 'group'
    JOIN group_members member ON member.recipient_id = own.recipient_id
    AND addressee.address = 'group:' || member.group_id
    WHERE own.id IN ${among(ids)} GROUP BY own.id`);
}

export async function hasLink(
  tx: Transaction,
  dispatch: DispatchId,
  recipient: RecipientId,
): Promise<boolean> {
  return (
    (await tx.$count(
      links,
      and(eq(links.dispatchId, dispatch), eq(links.recipientId, recipient)),
    )) > 0
  );
}
