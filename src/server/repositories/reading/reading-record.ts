import 'server-only';
import { and, desc, eq, inArray, or } from 'drizzle-orm';
import type { DocumentId, LicenceId, RecipientId, StaffId } from '@/core/base/ids';
import type { PageShown } from '@/core/insight/coverage';
import type { Reading } from '@/server/db/database';
import { grants } from '@/server/db/schema/access';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents, versions } from '@/server/db/schema/documents';
import { devices, licencePages, licences } from '@/server/db/schema/reading';

/** Opens that are told one by one; older ones are left out. */
const MOST_OPENS = 50;

/**
 * The newest opens of one document by one person, with the version each was of.
 *
 * @param own only of documents that this member of staff answers for, or that they sent
 */
export async function opensOf(
  db: Reading,
  document: DocumentId,
  recipient: RecipientId,
  own: StaffId | undefined,
) {
  return db
    .select({
      id: licences.id,
      openedAt: licences.openedAt,
      device: devices.label,
      version: versions.number,
      pages: versions.pages,
    })
    .from(licences)
    .innerJoin(versions, eq(versions.id, licences.versionId))
    .innerJoin(documents, eq(documents.id, licences.documentId))
    .innerJoin(grants, eq(grants.id, licences.grantId))
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .innerJoin(devices, eq(devices.id, licences.deviceId))
    .where(
      and(
        eq(licences.documentId, document),
        eq(licences.recipientId, recipient),
        own === undefined
          ? undefined
          : or(eq(documents.ownerId, own), eq(documents.deputyId, own), eq(dispatches.sentBy, own)),
      ),
    )
    .orderBy(desc(licences.openedAt))
    .limit(MOST_OPENS);
}

/** How long which page was in view, open by open. */
export async function pagesShownIn(
  db: Reading,
  ids: readonly LicenceId[],
): Promise<ReadonlyMap<LicenceId, PageShown[]>> {
  const rows = await db
    .select()
    .from(licencePages)
    .where(inArray(licencePages.licenceId, [...ids]));
  const shown = new Map<LicenceId, PageShown[]>();
  for (const { licenceId, page, shownFor } of rows) {
    const pages = shown.get(licenceId) ?? [];
    pages.push({ page, shownFor });
    shown.set(licenceId, pages);
  }
  return shown;
}
