import 'server-only';
import { and, gt, inArray, isNull, sql } from 'drizzle-orm';
import type { DocumentId, GrantId, RecipientId } from '@/core/base/ids';
import type { Ending } from '@/core/ledger/endings';
import { actionsThatEnd } from '@/core/ledger/action-effects';
import { NO_LIMITS, type Limits } from '@/core/policy/ceiling';
import type { Level } from '@/core/policy/levels';
import type { Reading } from '@/server/db/database';
import { documents, versions } from '@/server/db/schema/documents';
import { grants } from '@/server/db/schema/access';
import { ledgerEntries } from '@/server/db/schema/ledger';
import { recipients } from '@/server/db/schema/people';
import { staff } from '@/server/db/schema/staff';
import { listRules } from '@/server/repositories/policy/rules-repository';
import { listSenderLimits } from '@/server/repositories/policy/sender-limits-repository';

const ENDING_ACTIONS = actionsThatEnd();
/** Ids asked for at a time: fewer than SQLite takes parameters. */
const AT_ONCE = 5_000;

async function inStretches<T, R>(
  ids: readonly T[],
  read: (ids: T[]) => Promise<R[]>,
): Promise<R[]> {
  const rows: R[] = [];
  for (let at = 0; at < ids.length; at += AT_ONCE)
    rows.push(...(await read(ids.slice(at, at + AT_ONCE))));
  return rows;
}

async function ceilingsChanged(db: Reading, after: number, last: number): Promise<Ending[]> {
  const rows = await db.all<{ level: Level; subject: string; limits: string | null }>(sql`
    SELECT DISTINCT json_extract(e.body, '$.details.level') AS level, json_extract(e.body,
    '$.details.subject') AS subject, c.limits AS limits
    FROM ledger_entries e LEFT JOIN ceilings c ON c.level = json_extract(e.body,
    '$.details.level') AND c.subject = json_extract(e.body, '$.details.subject')
    WHERE e.sequence > ${after} AND e.action = 'ceiling.changed'`);
  return rows.map(({ level, subject, limits }) => ({
    sequence: last,
    of: 'ceiling',
    level,
    subject,
    limits: limits === null ? NO_LIMITS : (JSON.parse(limits) as Limits),
  }));
}

async function staffNow(db: Reading, last: number): Promise<Ending[]> {
  const limits = new Map((await listSenderLimits(db)).map((row) => [row.staffId, row.limits]));
  const members = await db.select({ id: staff.id, disabledAt: staff.disabledAt }).from(staff);
  return members.map(({ id, disabledAt }) => ({
    sequence: last,
    of: 'staff',
    id,
    disabled: disabledAt !== null,
    limits: limits.get(id) ?? null,
  }));
}

/** How everything stands to which access changed after this sequence of the ledger. */
export async function endingsSince(db: Reading, after: number): Promise<Ending[]> {
  const rows = await db
    .select({
      sequence: ledgerEntries.sequence,
      action: ledgerEntries.action,
      grant: ledgerEntries.grantId,
      document: ledgerEntries.documentId,
      recipient: ledgerEntries.recipientId,
    })
    .from(ledgerEntries)
    .where(
      and(gt(ledgerEntries.sequence, after), inArray(ledgerEntries.action, [...ENDING_ACTIONS])),
    );
  if (rows.length === 0) return [];
  const about = (kind: string): typeof rows =>
    rows.filter(({ action }) => action?.startsWith(kind) === true);
  const last = rows.reduce((most, { sequence }) => Math.max(most, sequence), after);
  const grantIds = [
    ...new Set(
      rows.flatMap(({ action, grant }) =>
        grant !== null && (action?.startsWith('grant.') === true || action === 'document.printed')
          ? [grant as GrantId]
          : [],
      ),
    ),
  ];
  const documentIds = [
    ...new Set(
      [...about('document.'), ...about('key.')].flatMap(({ document, action }) =>
        document !== null && action !== 'document.printed' ? [document as DocumentId] : [],
      ),
    ),
  ];
  const recipientIds = [
    ...new Set(
      about('recipient.').flatMap(({ recipient }) =>
        recipient === null ? [] : [recipient as RecipientId],
      ),
    ),
  ];
  const destroyed = new Set(
    (
      await inStretches(documentIds, (ids) =>
        db
          .selectDistinct({ id: versions.documentId })
          .from(versions)
          .where(and(inArray(versions.documentId, ids), isNull(versions.wrappedKey))),
      )
    ).map(({ id }) => id),
  );
  return [
    ...(
      await inStretches(grantIds, (ids) => db.select().from(grants).where(inArray(grants.id, ids)))
    ).map((grant): Ending => ({
      sequence: last,
      of: 'grant',
      id: grant.id,
      revoked: grant.revokedAt !== null,
      until: grant.untilAt,
      rights: [...grant.rights],
      prints: grant.prints,
      printsMade: grant.printsMade,
      conditions: grant.conditions,
    })),
    ...(
      await inStretches(documentIds, (ids) =>
        db.select().from(documents).where(inArray(documents.id, ids)),
      )
    ).map((document): Ending => ({
      sequence: last,
      of: 'document',
      id: document.id,
      revoked: document.revokedAt !== null,
      destroyed: destroyed.has(document.id),
    })),
    ...(
      await inStretches(recipientIds, (ids) =>
        db.select().from(recipients).where(inArray(recipients.id, ids)),
      )
    ).map((recipient): Ending => ({
      sequence: last,
      of: 'recipient',
      id: recipient.id,
      blocked: recipient.blocked,
    })),
    // Ceilings are few, and the entry says which it was about; what is there no more was lifted.
    ...(await ceilingsChanged(db, after, last)),
    // The staff are few, and so are the ways of handing out: where one changed, all are noted.
    ...(about('staff.').length === 0 ? [] : await staffNow(db, last)),
    ...(about('settings.').length === 0
      ? []
      : (await listRules(db)).map(({ way, leave }): Ending => ({
          sequence: last,
          of: 'rule',
          way,
          leave,
        }))),
  ];
}
