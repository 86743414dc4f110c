import 'server-only';
import { and, desc, eq, exists, gte, inArray, lt, or, sql, type SQL } from 'drizzle-orm';
import type { SQLiteColumn } from 'drizzle-orm/sqlite-core';
import type { DocumentId, MarkingId, RecipientId, StaffId } from '@/core/base/ids';
import { OPEN_STATES } from '@/core/policy/requests';
import type { Reading } from '@/server/db/database';
import { effectiveEnd, notEnded } from '@/server/repositories/access/effective-end';
import { holding } from '@/server/repositories/access/holding';
import { grants, requests } from '@/server/db/schema/access';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents } from '@/server/db/schema/documents';
import { ledgerPairs } from '@/server/db/schema/ledger';
import { outbox } from '@/server/db/schema/mailing';
import { recipients } from '@/server/db/schema/people';
import { staff } from '@/server/db/schema/staff';

/** Which dispatches are listed; absent: all. Moments in ms since the epoch, `to` itself outside. */
export type DispatchFilter = {
  readonly text?: string;
  readonly sender?: StaffId | undefined;
  readonly organisation?: string | undefined;
  readonly recipient?: RecipientId | undefined;
  readonly document?: DocumentId | undefined;
  readonly marking?: MarkingId | undefined;
  readonly state?: 'active' | 'over' | 'never-opened' | 'not-delivered' | 'asked' | undefined;
  readonly from?: number | undefined;
  readonly to?: number | undefined;
};

/** Whether a dispatch has a grant of which this holds. */
function hasGrant(where: SQL | undefined): SQL {
  return sql`EXISTS (SELECT 1 FROM ${grants}
    JOIN ${recipients} ON ${recipients.id} = ${grants.recipientId}
    JOIN ${documents} ON ${documents.id} = ${grants.documentId}
    WHERE ${grants.dispatchId} = ${dispatches.id} AND ${where})`;
}

function passing(filter: DispatchFilter): SQL | undefined {
  const { text = '', sender, organisation, recipient, document, marking, from, to } = filter;
  const { name, address, organisation: of } = recipients;
  const what = and(
    organisation === undefined ? undefined : eq(of, organisation),
    recipient === undefined ? undefined : eq(recipients.id, recipient),
    document === undefined ? undefined : eq(documents.id, document),
    marking === undefined ? undefined : eq(documents.markingId, marking),
  );
  const found = holding(text, name, address, of, documents.title, documents.reference);
  return and(
    sender === undefined ? undefined : eq(dispatches.sentBy, sender),
    from === undefined ? undefined : gte(dispatches.sentAt, from),
    to === undefined ? undefined : lt(dispatches.sentAt, to),
    what === undefined ? undefined : hasGrant(what),
    text === ''
      ? undefined
      : or(holding(text, dispatches.subject, dispatches.reference, staff.name), hasGrant(found)),
  );
}

function standing(
  state: DispatchFilter['state'],
  live: SQLiteColumn | SQL.Aliased,
  opens: SQLiteColumn | SQL.Aliased,
): SQL | undefined {
  switch (state) {
    case undefined:
      return undefined;
    case 'active':
      return sql`coalesce(${live}, 0) > 0`;
    case 'over':
      return sql`coalesce(${live}, 0) = 0`;
    case 'never-opened':
      return sql`coalesce(${opens}, 0) = 0`;
    case 'not-delivered':
      return sql`EXISTS (SELECT 1 FROM ${outbox} WHERE ${outbox.dispatchId} = ${dispatches.id}
        AND ${inArray(outbox.state, ['failed', 'unsure', 'returned', 'stopped'])})`;
    case 'asked':
      return sql`EXISTS (SELECT 1 FROM ${requests} JOIN ${grants} ON ${grants.id} = ${requests.grantId}
        WHERE ${grants.dispatchId} = ${dispatches.id} AND ${inArray(requests.state, OPEN_STATES)})`;
  }
}

/** Dispatches that pass the filter, the newest first, with what they come to now. */
export async function listDispatchRows(db: Reading, now: number, filter: DispatchFilter) {
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
    .where(and(passing(filter), standing(filter.state, counted.live, events.opens)))
    .orderBy(desc(dispatches.sentAt), dispatches.id);
}

/** The organisations that anything was dispatched to, by name. */
export async function organisationsSentTo(db: Reading): Promise<string[]> {
  const rows = await db
    .selectDistinct({ name: recipients.organisation })
    .from(recipients)
    .where(
      and(
        sql`${recipients.organisation} <> ''`,
        exists(
          db
            .select({ one: sql`1` })
            .from(grants)
            .where(eq(grants.recipientId, recipients.id)),
        ),
      ),
    )
    .orderBy(sql`${recipients.organisation} COLLATE NOCASE`);
  return rows.map(({ name }) => name);
}
