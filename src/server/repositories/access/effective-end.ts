import 'server-only';
import { and, eq, inArray, isNull, sql, type SQL } from 'drizzle-orm';
import { DAY } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import { reaching } from '@/core/policy/levels';
import type { Transaction } from '@/server/db/database';
import { documents } from '@/server/db/schema/documents';
import { folderParents, listCeilings } from '@/server/repositories/policy/ceiling-repository';

/**
 * When a grant ends, the days of ceilings included; null: never. For lists, which count many grants
 * at once: what decides asks the ceilings themselves.
 *
 * @param grant the name under which the query knows the grant's row, `document` its document's
 */
export function effectiveEnd(grant: string, document: string): SQL {
  const [until, given, days] = [
    sql.raw(`${grant}.until_at`),
    sql.raw(`${grant}.given_at`),
    sql.raw(`${document}.days_at_most`),
  ];
  return sql`CASE WHEN ${days} IS NULL THEN ${until}
    ELSE min(coalesce(${until}, ${given} + ${days} * ${DAY}), ${given} + ${days} * ${DAY}) END`;
}

/** Whether a grant has not ended yet. */
export function notEnded(grant: string, document: string, now: number): SQL {
  return sql`coalesce(${effectiveEnd(grant, document)} > ${now}, true)`;
}

/**
 * Notes anew on documents the strictest days of the ceilings over them: after a ceiling, a folder
 * or a document's filing has changed.
 */
export async function renewDaysAtMost(
  tx: Transaction,
  ids: readonly DocumentId[] | 'all',
): Promise<void> {
  const [ceilings, parents] = [await listCeilings(tx), await folderParents(tx)];
  const least = (standing: Parameters<typeof reaching>[0]): number | null =>
    reaching(standing, ceilings, parents).reduce<number | null>(
      (days, { limits }) =>
        limits.days === null ? days : Math.min(days ?? limits.days, limits.days),
      null,
    );
  const among = ids === 'all' ? undefined : inArray(documents.id, [...ids]);
  // Documents in one folder under one marking stand alike, but for ceilings of their own.
  const places = await tx
    .selectDistinct({ marking: documents.markingId, folder: documents.folderId })
    .from(documents)
    .where(among);
  for (const { marking, folder } of places) {
    const here = and(
      among,
      marking === null ? isNull(documents.markingId) : eq(documents.markingId, marking),
      folder === null ? isNull(documents.folderId) : eq(documents.folderId, folder),
    );
    await tx
      .update(documents)
      .set({ daysAtMost: least({ document: '', marking, folder }) })
      .where(here);
  }
  const own = ceilings
    .filter(({ level }) => level === 'document')
    .map(({ subject }) => subject as DocumentId);
  for (const { id, marking, folder } of await tx
    .select({ id: documents.id, marking: documents.markingId, folder: documents.folderId })
    .from(documents)
    .where(and(among, inArray(documents.id, own)))) {
    await tx
      .update(documents)
      .set({ daysAtMost: least({ document: id, marking, folder }) })
      .where(eq(documents.id, id));
  }
}
