import 'server-only';
import { and, count, desc, eq, gte, inArray, isNull, max, or, sql, type SQL } from 'drizzle-orm';
import type {
  DispatchId,
  DocumentId,
  GrantId,
  LicenceId,
  RecipientId,
  StaffId,
  TermsId,
} from '@/core/base/ids';
import type { GrantFacts } from '@/core/policy/compile';
import { UNUSED, type Conditions, type Used } from '@/core/policy/conditions';
import type { Right, Terms } from '@/core/policy/rights';
import type { Reading, Transaction } from '@/server/db/database';
import { effectiveEnd, notEnded } from '@/server/repositories/access/effective-end';
import {
  dispatches,
  documents,
  grants,
  ledgerPairs,
  licences,
  links,
  outbox,
  recipients,
  staff,
  versions,
} from '@/server/db/schema';

export type GrantRecord = typeof grants.$inferSelect;
export type RecipientRecord = typeof recipients.$inferSelect;

/** The terms in a grant's row. */
export function termsOf(
  row: Pick<GrantRecord, 'rights' | 'fromAt' | 'untilAt' | 'prints' | 'conditions'>,
): Terms {
  return {
    rights: row.rights,
    from: row.fromAt,
    until: row.untilAt,
    prints: row.prints,
    ...(row.conditions === null ? {} : { conditions: row.conditions }),
  };
}

/**
 * A grant's row as the policy takes it, with what was used of it besides prints. `domain`: it is
 * for everyone there.
 */
export function toFacts(
  row: GrantRecord,
  used: Partial<Used> = {},
  domain: string | null = null,
): GrantFacts {
  return {
    id: row.id,
    addressee:
      domain === null ? { kind: 'person', id: row.recipientId } : { kind: 'domain', id: domain },
    // What stands beneath a group or a domain was copied from there and stands by itself; what was passed on does not.
    parent: row.passedOnBy === null ? null : row.parentId,
    terms: termsOf(row),
    revoked: row.revokedAt !== null,
    revokedAt: row.revokedAt,
    used: { ...UNUSED, ...used, prints: row.printsMade },
    givenBy: row.givenBy,
    givenAt: row.givenAt,
  };
}

/** The same of a grant that others were passed on from: devices are counted for each person alone. */
export function toFactsAbove(row: GrantRecord, used: Partial<Used> = {}): GrantFacts {
  return toFacts(row, { ...used, devices: [] });
}

export async function findRecipients(
  db: Reading | Transaction,
  addresses: readonly string[],
): Promise<RecipientRecord[]> {
  return addresses.length === 0
    ? []
    : db
        .select()
        .from(recipients)
        .where(inArray(recipients.address, [...addresses]));
}

export async function insertRecipients(
  tx: Transaction,
  rows: readonly (typeof recipients.$inferInsert)[],
): Promise<void> {
  if (rows.length > 0) await tx.insert(recipients).values([...rows]);
}

export async function countDispatches(tx: Transaction): Promise<number> {
  return tx.$count(dispatches);
}

export async function insertDispatch(
  tx: Transaction,
  dispatch: typeof dispatches.$inferInsert,
): Promise<void> {
  await tx.insert(dispatches).values(dispatch);
}

export async function insertGrants(
  tx: Transaction,
  grantRows: readonly (typeof grants.$inferInsert)[],
  linkRows: readonly (typeof links.$inferInsert)[],
): Promise<void> {
  for (let at = 0; at < grantRows.length; at += 500)
    await tx.insert(grants).values(grantRows.slice(at, at + 500));
  if (linkRows.length > 0) await tx.insert(links).values([...linkRows]);
}

/** The links of a dispatch by recipient. */
export async function linksOf(
  db: Reading | Transaction,
  dispatch: DispatchId,
): Promise<Map<RecipientId, string>> {
  const rows = await db
    .select({ recipientId: links.recipientId, token: links.token })
    .from(links)
    .where(eq(links.dispatchId, dispatch));
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

/** Certain grants, and all that certain recipients have on certain documents. */
type Among = {
  readonly ids: readonly GrantId[];
  readonly documents: readonly DocumentId[];
  readonly recipients: readonly RecipientId[];
};
/**
 * Whose grants: of a sending, on a document, of a person, some among all, or those of a domain that
 * would let a person in.
 */
export type GrantsOf =
  | { readonly among: Among }
  | { readonly dispatch: DispatchId }
  | { readonly document: DocumentId }
  | { readonly recipient: RecipientId }
  | { readonly widerThan: RecipientId };
const grantColumns = {
  grant: grants,
  recipient: recipients,
  document: documents,
  dispatch: dispatches,
};

function whereGrantsAre(of: GrantsOf): SQL | undefined {
  if ('dispatch' in of) return eq(grants.dispatchId, of.dispatch);
  if ('document' in of) return eq(grants.documentId, of.document);
  if ('recipient' in of) return eq(grants.recipientId, of.recipient);
  if ('among' in of)
    return or(
      inArray(grants.id, [...of.among.ids]),
      and(
        inArray(grants.documentId, [...of.among.documents]),
        inArray(grants.recipientId, [...of.among.recipients]),
      ),
    );
  return and(eq(recipients.address, addressDomain(of.widerThan)), hasNoneOfTheirOwn(of.widerThan));
}

/** Grants with their recipients and documents; what stands for many first. */
export async function grantsOf(db: Reading | Transaction, of: GrantsOf) {
  return db
    .select({
      ...grantColumns,
      token: links.token,
      hasKey: sql<number>`${versions.wrappedKey} IS NOT NULL`,
    })
    .from(grants)
    .innerJoin(recipients, eq(recipients.id, grants.recipientId))
    .innerJoin(documents, eq(documents.id, grants.documentId))
    .innerJoin(versions, eq(versions.id, documents.versionId))
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .innerJoin(
      links,
      and(eq(links.dispatchId, grants.dispatchId), eq(links.recipientId, grants.recipientId)),
    )
    .where(whereGrantsAre(of))
    .orderBy(
      sql`${recipients.kind} = 'person'`,
      recipients.organisation,
      recipients.address,
      documents.reference,
    );
}

export async function grantsByIds(
  db: Reading | Transaction,
  ids: readonly GrantId[],
): Promise<GrantRecord[]> {
  return db
    .select()
    .from(grants)
    .where(inArray(grants.id, [...ids]));
}

/** The sending each of these grants came with. */
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

/** Who answers for each of these grants: who sent it, and who owns the document. */
export async function answerableFor(
  tx: Reading | Transaction,
  ids: readonly GrantId[],
): Promise<
  { readonly sender: StaffId; readonly owner: StaffId; readonly deputy: StaffId | null }[]
> {
  return tx
    .selectDistinct({
      sender: dispatches.sentBy,
      owner: documents.ownerId,
      deputy: documents.deputyId,
    })
    .from(grants)
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .innerJoin(documents, eq(documents.id, grants.documentId))
    .where(inArray(grants.id, [...ids]));
}

/** Opens a grant was charged with, and the last one. */
export async function opensByGrant(
  db: Reading,
  ids: readonly GrantId[],
): Promise<Map<GrantId, { readonly opens: number; readonly last: number | null }>> {
  if (ids.length === 0) return new Map();
  const rows = await db
    .select({ grantId: licences.grantId, opens: count(), last: max(licences.openedAt) })
    .from(licences)
    .where(inArray(licences.grantId, [...ids]))
    .groupBy(licences.grantId);
  return new Map(rows.map((row) => [row.grantId, { opens: row.opens, last: row.last }]));
}

/** What was refused, by recipient and document. */
export async function refusalsOf(
  db: Reading,
  documentIds: readonly DocumentId[],
): Promise<Map<string, number>> {
  if (documentIds.length === 0) return new Map();
  const rows = await db
    .select({
      recipientId: ledgerPairs.recipientId,
      documentId: ledgerPairs.documentId,
      refusals: sql<number>`sum(${ledgerPairs.entries})`,
    })
    .from(ledgerPairs)
    .where(and(inArray(ledgerPairs.documentId, [...documentIds]), eq(ledgerPairs.kind, 'refused')))
    .groupBy(ledgerPairs.recipientId, ledgerPairs.documentId);
  return new Map(rows.map((row) => [`${row.recipientId} ${row.documentId}`, row.refusals]));
}

export async function grantsOfRecipient(
  db: Reading | Transaction,
  recipient: RecipientId,
  document: DocumentId,
): Promise<GrantRecord[]> {
  return db
    .select()
    .from(grants)
    .where(and(eq(grants.recipientId, recipient), eq(grants.documentId, document)));
}

/** `@yard.example` of somebody's address. */
function addressDomain(recipient: RecipientId): SQL {
  return sql`(SELECT substr(p.address, instr(p.address, '@')) FROM recipients p WHERE p.id = ${recipient})`;
}

/**
 * Whoever has a grant of their own in a sending is judged by that, not by what reaches them there
 * along with others.
 */
function hasNoneOfTheirOwn(recipient: RecipientId): SQL {
  return sql`NOT EXISTS (SELECT 1 FROM grants own WHERE own.dispatch_id = ${grants.dispatchId}
    AND own.document_id = ${grants.documentId} AND own.recipient_id = ${recipient})`;
}

/** Grants on a document for everyone at a domain, but those of sendings in which this person has one of their own. */
export async function grantsOfDomain(
  db: Reading | Transaction,
  domain: string,
  recipient: RecipientId | null,
  document: DocumentId,
): Promise<GrantRecord[]> {
  const rows = await db
    .select({ grant: grants })
    .from(grants)
    .innerJoin(recipients, eq(recipients.id, grants.recipientId))
    .where(
      and(
        eq(grants.documentId, document),
        eq(recipients.address, domain),
        recipient === null ? undefined : hasNoneOfTheirOwn(recipient),
      ),
    );
  return rows.map(({ grant }) => grant);
}

/**
 * What was used of grants: opens (those of whatever was passed on from them included), the first of
 * their own, and on which devices of their own. `except`: an open that goes on is not counted
 * against itself. `until`: what was used later is left out.
 */
export async function usedOf(
  db: Reading | Transaction,
  ids: readonly GrantId[],
  except: LicenceId | null,
  until: number = Number.MAX_SAFE_INTEGER,
): Promise<Map<GrantId, Pick<Used, 'opens' | 'firstOpenedAt' | 'devices'>>> {
  const rows = await db.all<{
    grant: GrantId;
    opens: number;
    first: number | null;
    devices: string;
  }>(sql`
    WITH RECURSIVE charged(root, id) AS (
      SELECT value, value FROM json_each(${JSON.stringify(ids)})
      UNION SELECT charged.root, g.id FROM grants g JOIN charged ON g.parent_id = charged.id
      WHERE g.passed_on_by IS NOT NULL
    )
    SELECT root AS "grant", sum(l.id <> ${except ?? ''}) AS opens, min(CASE
    WHEN charged.id = root THEN l.opened_at END) AS first,
      json_group_array(DISTINCT CASE WHEN charged.id = root THEN l.device_id END) AS devices
    FROM charged JOIN licences l ON l.grant_id = charged.id AND l.opened_at <= ${until} GROUP BY root`);
  return new Map(
    rows.map(({ grant, opens, first, devices }) => [
      grant,
      {
        opens,
        firstOpenedAt: first,
        devices: (JSON.parse(devices) as (string | null)[]).filter((device) => device !== null),
      },
    ]),
  );
}

export async function setGrantsRevoked(
  tx: Transaction,
  ids: readonly GrantId[],
  by: StaffId,
  now: number,
): Promise<GrantRecord[]> {
  return tx
    .update(grants)
    .set({ revokedAt: now, revokedBy: by, revision: sql`${grants.revision} + 1` })
    .where(and(inArray(grants.id, [...ids]), sql`${grants.revokedAt} IS NULL`))
    .returning();
}

/** Revokes grants of which all are known to be live. */
export async function setAllRevoked(
  tx: Transaction,
  ids: readonly GrantId[],
  by: StaffId,
  now: number,
): Promise<void> {
  await tx.run(
    sql`UPDATE grants SET revoked_at = ${now}, revoked_by = ${by}, revision = revision + 1
      WHERE id IN (SELECT value FROM json_each(${JSON.stringify(ids)}))`,
  );
}

export async function setGrantsReinstated(
  tx: Transaction,
  ids: readonly GrantId[],
): Promise<GrantRecord[]> {
  return tx
    .update(grants)
    .set({ revokedAt: null, revokedBy: null, revision: sql`${grants.revision} + 1` })
    .where(and(inArray(grants.id, [...ids]), sql`${grants.revokedAt} IS NOT NULL`))
    .returning();
}

/** Grants that were given with kept terms and that nobody has changed or revoked since. */
export async function grantsByTerms(tx: Transaction, terms: TermsId): Promise<GrantRecord[]> {
  return tx
    .select()
    .from(grants)
    .where(and(eq(grants.termsId, terms), sql`${grants.revokedAt} IS NULL`));
}

/** Gives grants the terms that their kept ones have come to. */
export async function setTermsOfGrants(
  tx: Transaction,
  ids: readonly GrantId[],
  { rights, until, prints, conditions }: Terms,
): Promise<void> {
  await tx
    .update(grants)
    .set({
      rights,
      untilAt: until,
      prints,
      conditions: conditions ?? null,
      revision: sql`${grants.revision} + 1`,
    })
    .where(sql`${grants.id} IN (SELECT value FROM json_each(${JSON.stringify(ids)}))`);
}

/**
 * Changes a grant that is still at this revision; `null` where somebody was faster. It follows no
 * kept terms from then on.
 */
export async function setGrantTerms(
  tx: Transaction,
  id: GrantId,
  revision: number,
  {
    until,
    rights,
    prints,
    conditions,
  }: {
    readonly until: number | null;
    readonly rights: readonly Right[];
    readonly prints: number | null;
    readonly conditions: Conditions | null;
  },
): Promise<GrantRecord | null> {
  const [row] = await tx
    .update(grants)
    .set({
      untilAt: until,
      rights,
      prints,
      conditions,
      termsId: null,
      follows: false,
      revision: sql`${grants.revision} + 1`,
    })
    .where(and(eq(grants.id, id), eq(grants.revision, revision)))
    .returning();
  return row ?? null;
}

/**
 * Counts one print of a grant, and of every grant that it was passed on from.
 * @returns the number
 * of the copy, of its own grant
 */
export async function countPrint(tx: Transaction, id: GrantId): Promise<number> {
  await tx.run(sql`
    UPDATE grants SET prints_made = prints_made + 1 WHERE id IN (
      WITH RECURSIVE above(id, parent) AS (
        SELECT id, CASE WHEN passed_on_by IS NULL THEN NULL ELSE parent_id END FROM grants WHERE id = ${id}
        UNION SELECT g.id, CASE WHEN g.passed_on_by IS NULL THEN NULL ELSE g.parent_id END
        FROM grants g JOIN above ON g.id = above.parent
      ) SELECT id FROM above)`);
  const [row] = await tx
    .select({ printsMade: grants.printsMade })
    .from(grants)
    .where(eq(grants.id, id));
  return row?.printsMade ?? 0;
}

/** Grants that somebody revoked, themselves or by revoking a whole document, since a moment. */
export async function countRevokedBy(tx: Transaction, by: StaffId, since: number): Promise<number> {
  const alone = await tx.$count(
    grants,
    and(eq(grants.revokedBy, by), gte(grants.revokedAt, since)),
  );
  const withDocuments = await tx.$count(
    grants,
    and(
      isNull(grants.revokedAt),
      inArray(
        grants.documentId,
        tx
          .select({ id: documents.id })
          .from(documents)
          .where(and(eq(documents.revokedBy, by), gte(documents.revokedAt, since))),
      ),
    ),
  );
  return alone + withDocuments;
}

/** Grants on a document that are not revoked. */
export async function countLive(tx: Transaction, document: DocumentId): Promise<number> {
  return tx.$count(grants, and(eq(grants.documentId, document), isNull(grants.revokedAt)));
}

export async function allGrants(db: Reading): Promise<GrantRecord[]> {
  return db.select().from(grants);
}

export async function mailCounts(
  db: Reading,
  dispatch: DispatchId,
): Promise<{ waiting: number; delivered: number; failed: number }> {
  const rows = await db
    .select({ state: outbox.state, messages: count() })
    .from(outbox)
    .where(eq(outbox.dispatchId, dispatch))
    .groupBy(outbox.state);
  const of = (...states: readonly string[]): number =>
    rows.reduce((sum, row) => sum + (states.includes(row.state) ? row.messages : 0), 0);
  return {
    waiting: of('waiting', 'sending'),
    delivered: of('delivered'),
    failed: of('failed', 'unsure'),
  };
}
