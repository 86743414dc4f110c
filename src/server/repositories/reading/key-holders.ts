import 'server-only';
import { and, desc, eq, isNotNull, or } from 'drizzle-orm';
import type { DispatchId, DocumentId, RecipientId, StaffId } from '@/core/base/ids';
import type { Reading } from '@/server/db/database';
import { grants } from '@/server/db/schema/access';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents } from '@/server/db/schema/documents';
import { recipients } from '@/server/db/schema/people';
import { devices, licences } from '@/server/db/schema/reading';

/** Of one of the three. */
export type KeysOf = {
  readonly document?: DocumentId | undefined;
  readonly dispatch?: DispatchId | undefined;
  readonly person?: RecipientId | undefined;
};

/** So many are told one by one. */
const MOST = 2_000;

/**
 * Opens whose key was given to the person's own machine, the newest first.
 *
 * @param own only of documents that this member of staff answers for, or that they sent
 */
export async function keyHolders(db: Reading, of: KeysOf, own: StaffId | undefined) {
  return db
    .select({
      recipient: recipients.id,
      address: recipients.address,
      name: recipients.name,
      document: documents.id,
      title: documents.title,
      reference: documents.reference,
      label: devices.label,
      deviceName: devices.name,
      keyGivenAt: licences.keyGivenAt,
      offlineUntil: licences.offlineUntil,
    })
    .from(licences)
    .innerJoin(documents, eq(documents.id, licences.documentId))
    .innerJoin(recipients, eq(recipients.id, licences.recipientId))
    .innerJoin(grants, eq(grants.id, licences.grantId))
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .innerJoin(devices, eq(devices.id, licences.deviceId))
    .where(
      and(
        isNotNull(licences.keyGivenAt),
        of.document === undefined ? undefined : eq(licences.documentId, of.document),
        of.dispatch === undefined ? undefined : eq(grants.dispatchId, of.dispatch),
        of.person === undefined ? undefined : eq(licences.recipientId, of.person),
        own === undefined
          ? undefined
          : or(eq(documents.ownerId, own), eq(documents.deputyId, own), eq(dispatches.sentBy, own)),
      ),
    )
    .orderBy(desc(licences.keyGivenAt))
    .limit(MOST);
}
