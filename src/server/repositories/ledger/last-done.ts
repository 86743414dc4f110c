import 'server-only';
import { and, desc, eq, gt, gte, inArray, max, sql } from 'drizzle-orm';
import type { DocumentId, GrantId, RecipientId, StaffId, VersionId } from '@/core/base/ids';
import { toUtcText } from '@/core/base/time';
import type { Action, Entry } from '@/core/ledger/entry';
import type { Reading, Transaction } from '@/server/db/database';
import { ledgerEntries } from '@/server/db/schema/ledger';

/** Who did something last, and when; null where nobody did. */
export async function lastDone(
  db: Reading,
  action: Action,
  of: { readonly document?: DocumentId; readonly recipient?: RecipientId; readonly grant?: string },
): Promise<{ readonly by: string | null; readonly at: number } | null> {
  const where = [
    eq(ledgerEntries.action, action),
    ...(of.document === undefined ? [] : [eq(ledgerEntries.documentId, of.document)]),
    ...(of.recipient === undefined ? [] : [eq(ledgerEntries.recipientId, of.recipient)]),
    ...(of.grant === undefined ? [] : [eq(ledgerEntries.grantId, of.grant)]),
  ];
  const [row] = await db
    .select({ body: ledgerEntries.body })
    .from(ledgerEntries)
    .where(and(...where))
    .orderBy(desc(ledgerEntries.sequence))
    .limit(1);
  if (row === undefined) return null;
  const { actor, occurredAt } = JSON.parse(row.body) as Entry;
  return { by: actor.id, at: Date.parse(occurredAt) };
}

/** Whether a member of staff has opened this version of a document as a check since a moment. */
export async function wasChecked(
  db: Reading,
  document: DocumentId,
  version: VersionId,
  by: StaffId,
  since: number,
): Promise<boolean> {
  const where = and(
    eq(ledgerEntries.documentId, document),
    eq(ledgerEntries.action, 'document.checked'),
    eq(ledgerEntries.actorId, by),
    eq(ledgerEntries.versionId, version),
    gt(ledgerEntries.occurredAt, toUtcText(since)),
  );
  return (
    (
      await db
        .select({ sequence: ledgerEntries.sequence })
        .from(ledgerEntries)
        .where(where)
        .limit(1)
    ).length > 0
  );
}

/** Who changed each of these grants last, and when; those that nobody changed are missing. */
export async function lastChanges(
  db: Reading,
  grants: readonly GrantId[],
): Promise<Map<string, { readonly by: string | null; readonly at: number }>> {
  const last = db
    .select({ sequence: max(ledgerEntries.sequence).as('last') })
    .from(ledgerEntries)
    .where(
      and(eq(ledgerEntries.action, 'grant.changed'), inArray(ledgerEntries.grantId, [...grants])),
    )
    .groupBy(ledgerEntries.grantId);
  const rows = await db
    .select({ grant: ledgerEntries.grantId, body: ledgerEntries.body })
    .from(ledgerEntries)
    .where(inArray(ledgerEntries.sequence, last));
  return new Map(
    rows.map(({ grant, body }) => {
      const { actor, occurredAt } = JSON.parse(body) as Entry;
      return [grant ?? '', { by: actor.id, at: Date.parse(occurredAt) }];
    }),
  );
}

/** How many keys somebody destroyed since a moment without a second person. */
export async function destroyedAlone(
  db: Reading | Transaction,
  staff: StaffId,
  since: number,
): Promise<number> {
  const own = sql`json_extract(${ledgerEntries.body}, '$.actor.id') = ${staff}
    AND json_extract(${ledgerEntries.body}, '$.details.consent') IS NULL`;
  return db.$count(
    ledgerEntries,
    and(
      eq(ledgerEntries.action, 'key.destroyed'),
      gte(ledgerEntries.occurredAt, toUtcText(since)),
      own,
    ),
  );
}
