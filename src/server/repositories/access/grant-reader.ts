import 'server-only';
import {
  and,
  count,
  eq,
  gte,
  inArray,
  isNull,
  max,
  or,
  sql,
  type Placeholder,
  type SQL,
} from 'drizzle-orm';
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
import { UNUSED, type Used } from '@/core/policy/conditions';
import type { Terms } from '@/core/policy/rights';
import { READ_AFTER, type ReadSummary } from '@/core/insight/coverage';
import type { Reading, Transaction } from '@/server/db/database';
import { prepared } from '@/server/db/prepared';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents, versions } from '@/server/db/schema/documents';
import { grants, links } from '@/server/db/schema/access';
import { ledgerPairs } from '@/server/db/schema/ledger';
import { licences } from '@/server/db/schema/reading';
import { recipients } from '@/server/db/schema/people';

export type GrantRecord = typeof grants.$inferSelect;

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

/** Certain grants, and all that certain recipients have on certain documents. */
type Among = {
  readonly ids: readonly GrantId[];
  readonly documents: readonly DocumentId[];
  readonly recipients: readonly RecipientId[];
};

/**
 * Whose grants: of a dispatch, on a document, of a person, some among all, or those of a domain that
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
      linkOffAt: links.offAt,
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

/** What was read of the newest version under each grant, of those that were opened. */
export async function readByGrant(
  db: Reading,
  ids: readonly GrantId[],
): Promise<ReadonlyMap<GrantId, ReadSummary>> {
  if (ids.length === 0) return new Map();
  const rows = await db.all<ReadSummary & { readonly grant: GrantId }>(sql`
    SELECT "grant", pages, count(page) AS read, coalesce(min(page), 0) AS "from",
    coalesce(max(page), 0) AS "to" FROM (
      SELECT l.grant_id AS "grant", v.pages AS pages,
      CASE WHEN sum(p.shown_for) >= ${READ_AFTER} THEN p.page END AS page
      FROM licences l JOIN documents d ON d.id = l.document_id JOIN versions v ON v.id = d.version_id
      LEFT JOIN licence_pages p ON p.licence_id = l.id AND l.version_id = d.version_id
      WHERE l.grant_id IN (SELECT value FROM json_each(${JSON.stringify(ids)}))
      GROUP BY l.grant_id, p.page
    ) GROUP BY "grant"`);
  return new Map(rows.map(({ grant, ...summary }) => [grant, summary]));
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

const ofRecipient = prepared((db) =>
  db
    .select()
    .from(grants)
    .where(
      and(
        eq(grants.recipientId, sql.placeholder('recipient')),
        eq(grants.documentId, sql.placeholder('document')),
      ),
    )
    .prepare(),
);

export async function grantsOfRecipient(
  db: Reading | Transaction,
  recipient: RecipientId,
  document: DocumentId,
): Promise<GrantRecord[]> {
  return ofRecipient(db).all({ recipient, document });
}

/** `@yard.example` of somebody's address. */
function addressDomain(recipient: RecipientId): SQL {
  return sql`(SELECT substr(p.address, instr(p.address, '@')) FROM recipients p WHERE p.id = ${recipient})`;
}

/**
 * Anyone who has a grant of their own in a dispatch is judged by that, not by what reaches them there
 * along with others.
 */
function hasNoneOfTheirOwn(recipient: RecipientId | Placeholder): SQL {
  return sql`NOT EXISTS (SELECT 1 FROM grants own WHERE own.dispatch_id = ${grants.dispatchId}
    AND own.document_id = ${grants.documentId} AND own.recipient_id = ${recipient})`;
}

const ofDomain = prepared((db) =>
  db
    .select({ grant: grants })
    .from(grants)
    .innerJoin(recipients, eq(recipients.id, grants.recipientId))
    .where(
      and(
        eq(grants.documentId, sql.placeholder('document')),
        eq(recipients.address, sql.placeholder('domain')),
        hasNoneOfTheirOwn(sql.placeholder('recipient')),
      ),
    )
    .prepare(),
);

/** Grants on a document for everyone at a domain, but those of dispatches in which this person has one of their own. */
export async function grantsOfDomain(
  db: Reading | Transaction,
  domain: string,
  recipient: RecipientId | null,
  document: DocumentId,
): Promise<GrantRecord[]> {
  // Nobody has a grant under no name.
  const rows = await ofDomain(db).all({ document, domain, recipient: recipient ?? '' });
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

/** Grants that were given with saved terms and that nobody has changed or revoked since. */
export async function grantsByTerms(tx: Transaction, terms: TermsId): Promise<GrantRecord[]> {
  return tx
    .select()
    .from(grants)
    .where(and(eq(grants.termsId, terms), sql`${grants.revokedAt} IS NULL`));
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
