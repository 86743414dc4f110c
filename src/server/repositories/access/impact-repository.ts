import 'server-only';
import { and, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import type { DocumentId, FolderId, MarkingId, RecipientId, TermsId } from '@/core/base/ids';
import type { Conditions } from '@/core/policy/conditions';
import type { Right } from '@/core/policy/rights';
import type { Reading } from '@/server/db/database';
import { documents, versions } from '@/server/db/schema/documents';
import { grants } from '@/server/db/schema/access';
import { recipients } from '@/server/db/schema/people';
import type { GrantRecord } from '@/server/repositories/access/grant-reader';

/**
 * Grants with the same terms, of which as many prints were made, given at once, on documents that
 * stand alike: the same ceilings do the same to all of them.
 */
export type AlikeGrants = {
  /** The same for all that are alike, in whatever stretch they come. */
  readonly key: string;
  readonly rights: readonly Right[];
  readonly from: number | null;
  readonly until: number | null;
  readonly prints: number | null;
  readonly printsMade: number;
  readonly conditions: Conditions | null;
  readonly givenAt: number;
  readonly markingId: MarkingId | null;
  readonly folderId: FolderId | null;
  readonly termsId: TermsId | null;
  /** The document, where it has a ceiling of its own. */
  readonly own: DocumentId | null;
  /** Who was given which of the documents, as many of each as there are grants. */
  readonly recipients: readonly RecipientId[];
  readonly documents: readonly DocumentId[];
};
/**
 * Whether markings and folders make a difference, which documents have a rule of their own, with
 * which saved terms the grants were given, and on which documents; absent: with any, on all.
 */
export type AskedOf = {
  readonly filing: boolean;
  readonly own: readonly string[];
  readonly terms?: TermsId;
  readonly documents?: readonly DocumentId[];
};

/** What is not there, in a line: SQLite's `concat_ws` passes over an empty text as over a NULL. */
const NONE = '-';
const orNull = (text: string | undefined): string | null =>
  text === undefined || text === NONE ? null : text;
const numberOrNull = (text: string | undefined): number | null =>
  text === undefined || text === NONE ? null : Number(text);

/** The grants of these lines, those that are alike together. A line is who, what, and what makes them alike. */
function grouped(lines: readonly string[]): AlikeGrants[] {
  const alike = new Map<
    string,
    { readonly recipients: RecipientId[]; readonly documents: DocumentId[] }
  >();
  for (const line of lines) {
    const document = line.indexOf('|') + 1;
    const key = line.indexOf('|', document) + 1;
    const terms = line.slice(key);
    let group = alike.get(terms);
    if (group === undefined) alike.set(terms, (group = { recipients: [], documents: [] }));
    group.recipients.push(line.slice(0, document - 1) as RecipientId);
    group.documents.push(line.slice(document, key - 1) as DocumentId);
  }
  return [...alike].map(([terms, who]) => {
    const [
      givenAt,
      termsId,
      from,
      until,
      prints,
      printsMade,
      markingId,
      folderId,
      own,
      rights = '[]',
      ...conditions
    ] = terms.split('|');
    const when = { givenAt: Number(givenAt), from: numberOrNull(from), until: numberOrNull(until) };
    return {
      key: terms,
      ...who,
      ...when,
      termsId: orNull(termsId) as TermsId | null,
      prints: numberOrNull(prints),
      printsMade: Number(printsMade),
      markingId: orNull(markingId) as MarkingId | null,
      folderId: orNull(folderId) as FolderId | null,
      own: orNull(own) as DocumentId | null,
      rights: JSON.parse(rights) as Right[],
      conditions: JSON.parse(orNull(conditions.join('|')) ?? 'null') as Conditions | null,
    };
  });
}

/** The parts of the question that depend on what is asked. */
function partsOf({ own, filing, terms, documents }: AskedOf, now: number) {
  const among = (ids: readonly string[]) =>
    sql`g.document_id IN (SELECT value FROM json_each(${JSON.stringify(ids)}))`;
  return {
    own: own.length === 0 ? sql`NULL` : sql`CASE WHEN ${among(own)} THEN g.document_id END`,
    filing: filing
      ? sql`coalesce(d.marking_id, ${NONE}) AS marking_id, coalesce(d.folder_id, ${NONE}) AS folder_id`
      : sql`${NONE} AS marking_id, ${NONE} AS folder_id`,
    documents: filing ? sql`JOIN documents d ON d.id = g.document_id` : sql``,
    on: documents === undefined ? sql`` : sql`AND ${among(documents)}`,
    ...(terms === undefined
      ? { termsId: sql`${NONE}`, inQuestion: sql`(g.until_at IS NULL OR g.until_at > ${now})` }
      : // What has ended comes into question only where its own end may move.
        { termsId: sql`coalesce(g.terms_id, ${NONE})`, inQuestion: sql`g.terms_id = ${terms}` }),
  };
}

/**
 * The next `most` grants behind row `after` that are neither revoked nor over, or those given with
 * saved terms; those that are alike together. They come as one text, a line each: rows of their own,
 * or grouped by the database, would cost more than all the rest.
 */
export async function alikeGrants(
  db: Reading,
  now: number,
  asked: AskedOf,
  after: number,
  most: number,
): Promise<{ readonly alike: AlikeGrants[]; readonly grants: number; readonly last: number }> {
  const { own, filing, termsId, inQuestion, documents, on } = partsOf(asked, now);
  const [found] = await db.all<{ lines: string | null; grants: number; last: number | null }>(sql`
    SELECT group_concat(concat_ws('|', recipient_id, document_id, given_at, terms_id,
    coalesce(from_at, ${NONE}), coalesce(until_at, ${NONE}), coalesce(prints, ${NONE}),
    prints_made, marking_id, folder_id, coalesce(own, ${NONE}), rights, coalesce(conditions,
    ${NONE})), char(10)) AS lines, count(*) AS grants, max(row) AS last
    FROM (
      SELECT g.rowid AS row, ${termsId} AS terms_id, g.rights, g.from_at, g.until_at,
      g.prints, g.prints_made, g.conditions, g.given_at, g.recipient_id, g.document_id, ${filing}, ${own} AS own
      FROM grants g ${documents}
      WHERE g.rowid > ${after} AND g.revoked_at IS NULL AND ${inQuestion} ${on}
      ORDER BY g.rowid LIMIT ${most}
    )`);
  return {
    alike: grouped(found?.lines?.split('\n') ?? []),
    grants: found?.grants ?? 0,
    last: found?.last ?? after,
  };
}

/** One person, or one addressee that stands for many, and one document. */
export type Pair = { readonly recipient: RecipientId; readonly document: DocumentId };

/**
 * Those who cannot be judged by one grant: they have several on a document, or one that was passed
 * on or is opened by domain, or it was opened and counts opens. With saved terms: on documents that
 * were given with them.
 */
export async function pairsToJudgeAlone(
  db: Reading,
  asked: AskedOf,
  opensCount: boolean,
): Promise<Pair[]> {
  const documents =
    asked.documents === undefined
      ? sql``
      : sql`AND document IN (SELECT value FROM json_each(${JSON.stringify(asked.documents)}))`;
  const ofTerms =
    asked.terms === undefined
      ? sql``
      : sql`AND document IN (SELECT document_id FROM grants WHERE terms_id = ${asked.terms})`;
  // Each part reads an index alone, or the few rows that it is about.
  return db.all<Pair>(sql`
    SELECT recipient, document FROM (
      SELECT recipient_id AS recipient, document_id AS document FROM grants
      GROUP BY document_id, recipient_id HAVING count(*) > 1
      UNION SELECT g.recipient_id, g.document_id FROM grants g WHERE g.parent_id IS NOT NULL
      AND g.passed_on_by IS NOT NULL
      UNION SELECT g.recipient_id, g.document_id FROM recipients r
      JOIN grants d ON d.recipient_id = r.id AND d.revoked_at IS NULL
      JOIN grants g ON g.document_id = d.document_id WHERE r.kind = 'domain'
      UNION SELECT g.recipient_id, g.document_id FROM licences l
      JOIN grants g ON g.id = l.grant_id WHERE ${opensCount} OR g.conditions IS NOT NULL
    ) WHERE true ${documents} ${ofTerms}`);
}

/** Every grant of these pairs that is not revoked, and those of domains on the same documents. */
export async function grantsOfPairs(
  db: Reading,
  pairs: readonly Pair[],
): Promise<{
  readonly own: GrantRecord[];
  readonly ofDomains: (GrantRecord & { readonly domain: string })[];
}> {
  const asked = JSON.stringify(pairs.map(({ recipient, document }) => [document, recipient]));
  const own = await db
    .select()
    .from(grants)
    .where(
      and(
        isNull(grants.revokedAt),
        sql`(${grants.documentId}, ${grants.recipientId}) IN (SELECT value ->> 0, value ->> 1
          FROM json_each(${asked}))`,
      ),
    );
  const documentIds = JSON.stringify([...new Set(pairs.map(({ document }) => document))]);
  const ofDomains = await db
    .select({ grant: grants, domain: recipients.address })
    .from(grants)
    .innerJoin(recipients, eq(recipients.id, grants.recipientId))
    .where(
      and(
        isNull(grants.revokedAt),
        eq(recipients.kind, 'domain'),
        sql`${grants.documentId} IN (SELECT value FROM json_each(${documentIds}))`,
      ),
    );
  return { own, ofDomains: ofDomains.map(({ grant, domain }) => ({ ...grant, domain })) };
}

/** Who and what opens nothing, whatever is changed, until it is unblocked or reinstated. */
export async function shutAnyway(
  db: Reading,
): Promise<{ readonly people: ReadonlySet<string>; readonly documents: ReadonlySet<string> }> {
  const people = await db
    .select({ id: recipients.id })
    .from(recipients)
    .where(eq(recipients.blocked, true));
  const revoked = await db
    .select({ id: documents.id })
    .from(documents)
    .where(isNotNull(documents.revokedAt));
  const destroyed = await db
    .selectDistinct({ id: versions.documentId })
    .from(versions)
    .where(isNull(versions.wrappedKey));
  return {
    people: new Set(people.map(({ id }) => id)),
    documents: new Set([...revoked, ...destroyed].map(({ id }) => id)),
  };
}
