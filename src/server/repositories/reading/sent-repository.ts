import 'server-only';
import { and, desc, eq, gt, isNull, max, sql } from 'drizzle-orm';
import type { DeviceId, DispatchId, DocumentId, RecipientId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents, versions } from '@/server/db/schema/documents';
import { grants, requests } from '@/server/db/schema/access';
import { devices, licences } from '@/server/db/schema/reading';
import { staff } from '@/server/db/schema/staff';
import { forAddress } from '@/server/repositories/reading/reader-repository';

/** What anyone who has this address was given, grant by grant, the newest dispatch first. */
export async function sentTo(db: Reading, address: string, most: number) {
  return db
    .select({
      document: documents.id,
      title: documents.title,
      reference: documents.reference,
      pages: versions.pages,
      version: versions.id,
      sender: staff.name,
      sentAt: dispatches.sentAt,
    })
    .from(grants)
    .innerJoin(documents, eq(documents.id, grants.documentId))
    .innerJoin(versions, eq(versions.id, documents.versionId))
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .innerJoin(staff, eq(staff.id, dispatches.sentBy))
    .where(forAddress(db, address))
    .orderBy(desc(dispatches.sentAt), documents.reference)
    .limit(most);
}

/** The newest dispatch that carries a document to this address; null: none does. */
export async function newestDispatchTo(
  db: Reading,
  address: string,
  document: DocumentId,
): Promise<DispatchId | null> {
  const [row] = await db
    .select({ id: dispatches.id })
    .from(grants)
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .where(and(eq(grants.documentId, document), forAddress(db, address)))
    .orderBy(desc(dispatches.sentAt), desc(sql`${grants}.rowid`))
    .limit(1);
  return row?.id ?? null;
}

/** Whether anything was ever sent to this address. */
export async function hasBeenSent(db: Reading, address: string): Promise<boolean> {
  return (await db.$count(grants, forAddress(db, address))) > 0;
}

/** All that somebody asked, with the document it is about, the newest first. */
export async function requestsBy(db: Reading, recipient: RecipientId) {
  return db
    .select({ request: requests, document: grants.documentId })
    .from(requests)
    .innerJoin(grants, eq(grants.id, requests.grantId))
    .where(eq(requests.recipientId, recipient))
    .orderBy(desc(requests.askedAt));
}

/** The devices of an address that have not ended, with when something was last opened on each. */
export async function devicesOfAddress(db: Reading, address: string, now: number) {
  return db
    .select({
      id: devices.id,
      label: devices.label,
      name: devices.name,
      kept: devices.kept,
      since: devices.createdAt,
      until: devices.expiresAt,
      openedAt: max(licences.openedAt),
    })
    .from(devices)
    .leftJoin(licences, eq(licences.deviceId, devices.id))
    .where(and(eq(devices.address, address), isNull(devices.endedAt), gt(devices.expiresAt, now)))
    .groupBy(devices.id)
    .orderBy(desc(devices.createdAt));
}

/** A device of an address that has not ended; null: there is none such. */
export async function findDeviceOf(tx: Transaction, address: string, id: DeviceId, now: number) {
  const [row] = await tx
    .select({ id: devices.id, recipient: devices.recipientId })
    .from(devices)
    .where(
      and(
        eq(devices.id, id),
        eq(devices.address, address),
        isNull(devices.endedAt),
        gt(devices.expiresAt, now),
      ),
    );
  return row ?? null;
}

export async function nameDevice(tx: Transaction, id: DeviceId, name: string): Promise<void> {
  await tx
    .update(devices)
    .set({ name: name === '' ? null : name })
    .where(eq(devices.id, id));
}
