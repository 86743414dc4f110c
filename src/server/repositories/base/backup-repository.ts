import 'server-only';
import { eq, inArray, isNotNull, isNull } from 'drizzle-orm';
import type { GrantId, StaffId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { challenges, devices, passkeyChallenges, passkeys } from '@/server/db/schema/reading';
import { grants } from '@/server/db/schema/access';
import { outbox } from '@/server/db/schema/mailing';
import { staff, staffSessions, staffTickets } from '@/server/db/schema/staff';
import { uploads, versions } from '@/server/db/schema/documents';

/** Every stored content, with what its file has to be long. */
export async function storedVersions(db: Reading) {
  return db
    .select({
      id: versions.id,
      blobKey: versions.blobKey,
      headerBytes: versions.headerBytes,
      bytes: versions.bytes,
      pagesBytes: versions.pagesBytes,
      isLocal: versions.isLocal,
    })
    .from(versions);
}

/** Grants that are not revoked. */
export async function liveGrantIds(db: Reading | Transaction): Promise<GrantId[]> {
  return (await db.select({ id: grants.id }).from(grants).where(isNull(grants.revokedAt))).map(
    ({ id }) => id,
  );
}

/** Sets what a grant was used for, where more was used since. */
export async function setPrintsMade(
  tx: Transaction,
  id: GrantId,
  printsMade: number,
): Promise<void> {
  await tx.update(grants).set({ printsMade }).where(eq(grants.id, id));
}

export async function disableStaffRow(tx: Transaction, id: StaffId, now: number): Promise<void> {
  await tx.update(staff).set({ disabledAt: now }).where(eq(staff.id, id));
}

/**
 * Ends what was under way when a backup was made: everybody signs in and proves their address anew,
 * uploads whose content is not there are gone, and mail that may have been sent since waits for
 * somebody to say so; `why` is what is told of that mail.
 */
export async function endWhatWasOpen(tx: Transaction, now: number, why: string): Promise<void> {
  await tx.delete(staffSessions).where(isNotNull(staffSessions.id));
  await tx.delete(staffTickets).where(isNotNull(staffTickets.tokenMac));
  await tx.delete(challenges).where(isNotNull(challenges.id));
  await tx.delete(passkeyChallenges).where(isNotNull(passkeyChallenges.holder));
  // One that was removed since must not come back, and which those are the backup does not know.
  await tx.update(passkeys).set({ endedAt: now }).where(isNull(passkeys.endedAt));
  await tx.delete(uploads).where(isNotNull(uploads.id));
  await tx.update(devices).set({ endedAt: now }).where(isNull(devices.endedAt));
  await tx
    .update(outbox)
    .set({
      state: 'failed',
      lastError: why,
    })
    .where(inArray(outbox.state, ['waiting', 'sending']));
}
