import 'server-only';
import {
  and,
  asc,
  count,
  countDistinct,
  desc,
  eq,
  gt,
  gte,
  isNull,
  lte,
  max,
  notInArray,
  or,
  sql,
} from 'drizzle-orm';
import { effectiveEnd, notEnded } from '@/server/repositories/access/effective-end';
import type { Reading } from '@/server/db/database';
import { isWhose, type Whose } from '@/server/repositories/ledger/own-repository';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents } from '@/server/db/schema/documents';
import { grants } from '@/server/db/schema/access';
import { ledgerEntries, ledgerPersonal } from '@/server/db/schema/ledger';
import { licences } from '@/server/db/schema/reading';
import { outbox } from '@/server/db/schema/mailing';
import { recipients } from '@/server/db/schema/people';

/** Refused opens since a moment, by who, what and why, the most recent first. */
export async function refusalsSince(
  db: Reading,
  since: string,
  limit: number,
  whose: Whose | null,
) {
  const { reason } = ledgerEntries;
  return db
    .select({
      recipientId: ledgerEntries.recipientId,
      name: recipients.name,
      address: max(ledgerPersonal.value),
      organisation: recipients.organisation,
      documentId: ledgerEntries.documentId,
      title: documents.title,
      reason,
      times: count(),
      last: max(ledgerEntries.occurredAt),
    })
    .from(ledgerEntries)
    .leftJoin(recipients, eq(recipients.id, ledgerEntries.recipientId))
    .leftJoin(documents, eq(documents.id, ledgerEntries.documentId))
    .leftJoin(
      ledgerPersonal,
      and(eq(ledgerPersonal.sequence, ledgerEntries.sequence), eq(ledgerPersonal.field, 'address')),
    )
    .where(
      and(
        eq(ledgerEntries.action, 'document.opened'),
        eq(ledgerEntries.outcome, 'refused'),
        gte(ledgerEntries.occurredAt, since),
        isWhose(whose, ledgerEntries.documentId, ledgerEntries.dispatchId),
      ),
    )
    .groupBy(
      ledgerEntries.recipientId,
      sql`CASE WHEN ${ledgerEntries.recipientId} IS NULL THEN ${ledgerPersonal.value} END`,
      ledgerEntries.documentId,
      reason,
    )
    .orderBy(desc(max(ledgerEntries.occurredAt)))
    .limit(limit);
}

/** Dispatches of which some access ends in (`now`, `until`], the next first. */
export async function endingBetween(db: Reading, now: number, until: number, whose: Whose | null) {
  return db
    .select({
      dispatchId: dispatches.id,
      reference: dispatches.reference,
      subject: dispatches.subject,
      people: countDistinct(grants.recipientId),
      until: sql<number>`min(${effectiveEnd('grants', 'documents')})`,
    })
    .from(grants)
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .innerJoin(documents, eq(documents.id, grants.documentId))
    .where(
      and(
        isNull(grants.revokedAt),
        isNull(documents.revokedAt),
        sql`${effectiveEnd('grants', 'documents')} > ${now}`,
        sql`${effectiveEnd('grants', 'documents')} <= ${until}`,
        isWhose(whose, documents.id, dispatches.id),
      ),
    )
    .groupBy(dispatches.id)
    .orderBy(asc(sql`min(${effectiveEnd('grants', 'documents')})`));
}

/** People who could open something of a dispatch now and never opened any of it, with what is known about why. */
export async function unopened(db: Reading, now: number, whose: Whose | null) {
  const opened = db
    .selectDistinct({ dispatchId: grants.dispatchId, recipientId: licences.recipientId })
    .from(licences)
    .innerJoin(grants, eq(grants.id, licences.grantId))
    .as('opened');
  return db
    .select({
      dispatchId: dispatches.id,
      reference: dispatches.reference,
      subject: dispatches.subject,
      recipientId: recipients.id,
      name: recipients.name,
      address: recipients.address,
      sentAt: dispatches.sentAt,
      sentBy: dispatches.sentBy,
      delivery: dispatches.delivery,
      form: dispatches.form,
      openSince: sql<number>`min(max(coalesce(${grants.fromAt}, ${grants.givenAt}), ${grants.givenAt}))`,
      mail: sql<
        'waiting' | 'delivered' | 'failed' | null
      >`(SELECT CASE ${outbox.state} WHEN 'sending' THEN 'waiting' WHEN 'unsure' THEN 'failed'
        WHEN 'returned' THEN 'failed' WHEN 'stopped' THEN 'failed'
        ELSE ${outbox.state} END FROM ${outbox} WHERE ${outbox.dispatchId} = ${dispatches.id}
        AND ${outbox.recipientId} = ${recipients.id} ORDER BY ${outbox.createdAt} DESC LIMIT 1)`,
      refusals: sql<number>`(SELECT count(*) FROM ${ledgerEntries}
        WHERE ${ledgerEntries.dispatchId} = ${dispatches.id}
        AND ${ledgerEntries.recipientId} = ${recipients.id}
        AND ${ledgerEntries.action} = 'document.opened' AND ${ledgerEntries.outcome} = 'refused')`,
    })
    .from(grants)
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .innerJoin(recipients, eq(recipients.id, grants.recipientId))
    .innerJoin(documents, eq(documents.id, grants.documentId))
    .leftJoin(
      opened,
      and(eq(opened.dispatchId, grants.dispatchId), eq(opened.recipientId, grants.recipientId)),
    )
    .where(
      and(
        eq(recipients.kind, 'person'),
        isNull(opened.recipientId),
        isNull(grants.revokedAt),
        isNull(documents.revokedAt),
        eq(recipients.blocked, false),
        notEnded('grants', 'documents', now),
        or(isNull(grants.fromAt), lte(grants.fromAt, now)),
        isWhose(whose, documents.id, dispatches.id),
      ),
    )
    .groupBy(dispatches.id, recipients.id)
    .orderBy(desc(dispatches.sentAt), recipients.name);
}

/** Messages that were given up, or that the mail server has put off. */
export async function undelivered(db: Reading, limit: number, whose: Whose | null) {
  return db
    .select({
      dispatchId: outbox.dispatchId,
      recipientId: outbox.recipientId,
      subject: outbox.subject,
      address: outbox.toAddress,
      attempts: outbox.attempts,
      problem: outbox.lastError,
      state: outbox.state,
    })
    .from(outbox)
    .where(
      and(
        notInArray(outbox.state, ['delivered', 'sending', 'stopped']),
        gt(outbox.attempts, 0),
        isWhose(whose, null, outbox.dispatchId),
      ),
    )
    .orderBy(desc(outbox.createdAt))
    .limit(limit);
}
