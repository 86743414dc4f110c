import 'server-only';
import { and, eq, sql } from 'drizzle-orm';
import type { DocumentId, FolderId, MarkingId, RecipientId, StaffId, TermsId } from '@/core/base/ids';
import type { Ceiling, Limits } from '@/core/policy/ceiling';
import type { Level } from '@/core/policy/levels';
import type { Conditions } from '@/core/policy/conditions';
import type { Right } from '@/core/policy/rights';
import type { Reading, Transaction } from '@/server/db/database';
import { ceilings, folders } from '@/server/db/schema';

/** Every ceiling there is: few, beside what they limit. */
export async function listCeilings(db: Reading | Transaction): Promise<Ceiling[]> {
  return db.select().from(ceilings);
}

/** Folders with what they lie in. */
export async function folderParents(db: Reading | Transaction): Promise<Map<FolderId, FolderId | null>> {
  const rows = await db.select({ id: folders.id, parentId: folders.parentId }).from(folders);
  return new Map(rows.map(({ id, parentId }) => [id, parentId]));
}

export async function putCeilingRow(tx: Transaction, row: { readonly level: Level; readonly subject: string; readonly limits: Limits; readonly setBy: StaffId; readonly setAt: number }): Promise<void> {
  await tx.insert(ceilings).values(row).onConflictDoUpdate({ target: [ceilings.level, ceilings.subject], set: row });
}

export async function removeCeilingRow(tx: Transaction, level: Level, subject: string): Promise<void> {
  await tx.delete(ceilings).where(and(eq(ceilings.level, level), eq(ceilings.subject, subject)));
}

/** Grants with the same terms, given at once, on documents that stand alike: the same ceilings do the same to all of them. */
export type AlikeGrants = {
  readonly rights: readonly Right[]; readonly from: number | null; readonly until: number | null; readonly prints: number | null; readonly conditions: Conditions | null; readonly givenAt: number;
  readonly markingId: MarkingId | null; readonly folderId: FolderId | null;
  /** The document, where it has a ceiling of its own. */
  readonly own: DocumentId | null;
  /** Who was given which of the documents, as many of each as there are grants. */
  readonly recipients: readonly RecipientId[];
  readonly documents: readonly DocumentId[];
};
/** Whether markings and folders make a difference, which documents have a rule of their own, with which kept terms the grants were given, and on which documents; absent: with any, on all. */
export type AskedOf = { readonly filing: boolean; readonly own: readonly string[]; readonly terms?: TermsId; readonly documents?: readonly DocumentId[] };

/** What is not there, in a line: SQLite's `concat_ws` passes over an empty text as over a NULL. */
const NONE = '-';
const orNull = (text: string | undefined): string | null => (text === undefined || text === NONE ? null : text);
const numberOrNull = (text: string | undefined): number | null => (text === undefined || text === NONE ? null : Number(text));

/** The grants of these lines, those that are alike together. A line is who, what, and what makes them alike. */
function grouped(lines: readonly string[]): AlikeGrants[] {
  const alike = new Map<string, { readonly recipients: RecipientId[]; readonly documents: DocumentId[] }>();
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
    const [givenAt, from, until, prints, markingId, folderId, own, rights = '[]', ...conditions] = terms.split('|');
    const when = { givenAt: Number(givenAt), from: numberOrNull(from), until: numberOrNull(until) };
    return { ...who, ...when, prints: numberOrNull(prints), markingId: orNull(markingId) as MarkingId | null, folderId: orNull(folderId) as FolderId | null, own: orNull(own) as DocumentId | null, rights: JSON.parse(rights) as Right[], conditions: JSON.parse(orNull(conditions.join('|')) ?? 'null') as Conditions | null };
  });
}

/**
 * The next `most` grants behind row `after` that are neither revoked nor over, or those given with kept terms; those that are
 * alike together.
 * They come as one text, a line each: rows of their own, or grouped by the database, would cost more than all the rest.
 */
export async function alikeGrants(db: Reading, now: number, asked: AskedOf, after: number, most: number): Promise<{ readonly alike: AlikeGrants[]; readonly grants: number; readonly last: number }> {
  const own = asked.own.length === 0 ? sql`NULL` : sql`CASE WHEN g.document_id IN (SELECT value FROM json_each(${JSON.stringify(asked.own)})) THEN g.document_id END`;
  const filing = asked.filing ? sql`coalesce(d.marking_id, ${NONE}) AS marking_id, coalesce(d.folder_id, ${NONE}) AS folder_id` : sql`${NONE} AS marking_id, ${NONE} AS folder_id`;
  // What has ended comes into question only where its own end may move.
  const inQuestion = asked.terms === undefined ? sql`(g.until_at IS NULL OR g.until_at > ${now})` : sql`g.terms_id = ${asked.terms}`;
  const documents = asked.filing ? sql`JOIN documents d ON d.id = g.document_id` : sql``;
  const on = asked.documents === undefined ? sql`` : sql`AND g.document_id IN (SELECT value FROM json_each(${JSON.stringify(asked.documents)}))`;
  const [found] = await db.all<{ lines: string | null; grants: number; last: number | null }>(sql`
    SELECT group_concat(concat_ws('|', recipient_id, document_id, given_at, coalesce(from_at, ${NONE}), coalesce(until_at, ${NONE}), coalesce(prints, ${NONE}), marking_id, folder_id, coalesce(own, ${NONE}), rights, coalesce(conditions, ${NONE})), char(10)) AS lines, count(*) AS grants, max(row) AS last
    FROM (
      SELECT g.rowid AS row, g.rights, g.from_at, g.until_at, g.prints, g.conditions, g.given_at, g.recipient_id, g.document_id, ${filing}, ${own} AS own
      FROM grants g ${documents}
      WHERE g.rowid > ${after} AND g.revoked_at IS NULL AND ${inQuestion} ${on}
      ORDER BY g.rowid LIMIT ${most}
    )`);
  return { alike: grouped(found?.lines?.split('\n') ?? []), grants: found?.grants ?? 0, last: found?.last ?? after };
}
