import 'server-only';
import { and, desc, eq, gt, inArray, isNull, sql, type SQL } from 'drizzle-orm';
import type {
  DeviceId,
  DispatchId,
  DocumentId,
  Id,
  LicenceId,
  LinkId,
  RecipientId,
} from '@/core/base/ids';
import { domainOf } from '@/core/policy/address';
import type { Reading, Transaction } from '@/server/db/database';
import { prepared } from '@/server/db/prepared';
import { challenges, devices, licencePages, licences } from '@/server/db/schema/reading';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents, versions } from '@/server/db/schema/documents';
import { grants, links } from '@/server/db/schema/access';
import { recipients } from '@/server/db/schema/people';
import { staff } from '@/server/db/schema/staff';

export type ChallengeRow = typeof challenges.$inferSelect;
export type DeviceRow = typeof devices.$inferSelect;
export type LicenceRow = Omit<typeof licences.$inferSelect, 'seal'>;

/** A link that leads to its dispatch. `addressee` and `kind` are `null` where it is nobody's own. */
export async function findLink(db: Reading, token: string) {
  const [row] = await db
    .select({
      link: links,
      dispatch: dispatches,
      senderName: staff.name,
      senderEmail: staff.email,
      addressee: recipients.address,
      kind: recipients.kind,
    })
    .from(links)
    .innerJoin(dispatches, eq(dispatches.id, links.dispatchId))
    .innerJoin(staff, eq(staff.id, dispatches.sentBy))
    .leftJoin(recipients, eq(recipients.id, links.recipientId))
    .where(and(eq(links.token, token), isNull(links.offAt)));
  return row ?? null;
}

/** The token of the link that leads a recipient to a dispatch. */
export async function linkOf(
  db: Reading | Transaction,
  dispatch: DispatchId,
  recipient: RecipientId,
): Promise<string | null> {
  const [row] = await db
    .select({ token: links.token })
    .from(links)
    .where(
      and(eq(links.dispatchId, dispatch), eq(links.recipientId, recipient), isNull(links.offAt)),
    );
  return row?.token ?? null;
}

const recipientByAddress = prepared((db) =>
  db
    .select()
    .from(recipients)
    .where(eq(recipients.address, sql.placeholder('address')))
    .prepare(),
);

export async function findRecipientByAddress(db: Reading | Transaction, address: string) {
  const [row] = await recipientByAddress(db).all({ address });
  return row ?? null;
}

/** The documents that a dispatch carries. */
function carriedBy(db: Reading | Transaction, dispatch: DispatchId) {
  return db
    .selectDistinct({ id: grants.documentId })
    .from(grants)
    .where(eq(grants.dispatchId, dispatch));
}

/** The documents that a dispatch carries, each once. */
export async function documentsCarried(db: Reading, dispatch: DispatchId): Promise<DocumentId[]> {
  return (await carriedBy(db, dispatch)).map(({ id }) => id);
}

/** Grants of anyone who has this address: their own, and those of everyone at its domain. */
export function forAddress(db: Reading | Transaction, address: string): SQL {
  return inArray(
    grants.recipientId,
    db
      .select({ id: recipients.id })
      .from(recipients)
      .where(inArray(recipients.address, [address, domainOf(address)])),
  );
}

/** Whether a dispatch carries a document. */
export async function carries(
  db: Reading | Transaction,
  dispatch: DispatchId,
  document: DocumentId,
): Promise<boolean> {
  return (
    (await db.$count(
      grants,
      and(eq(grants.dispatchId, dispatch), eq(grants.documentId, document)),
    )) > 0
  );
}

/**
 * Of what is sent to this address, the dispatch a link shows: its own, or else the newest that
 * carries one of its documents.
 */
export async function dispatchShownTo(db: Reading, dispatch: DispatchId, address: string) {
  const [row] = await db
    .select({ note: dispatches.note, senderName: staff.name, senderEmail: staff.email })
    .from(grants)
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .innerJoin(staff, eq(staff.id, dispatches.sentBy))
    .where(and(inArray(grants.documentId, carriedBy(db, dispatch)), forAddress(db, address)))
    .orderBy(desc(eq(dispatches.id, dispatch)), desc(dispatches.sentAt))
    .limit(1);
  return row ?? null;
}

export async function insertChallenge(
  tx: Transaction,
  row: typeof challenges.$inferInsert,
): Promise<void> {
  await tx.insert(challenges).values(row);
}

/** The newest unused challenge for this browser and address, still within its time. */
export async function findChallenge(
  db: Reading | Transaction,
  link: LinkId | null,
  address: string,
  browserHash: string,
  now: number,
): Promise<ChallengeRow | null> {
  const [row] = await db
    .select()
    .from(challenges)
    .where(
      and(
        link === null ? isNull(challenges.linkId) : eq(challenges.linkId, link),
        eq(challenges.address, address),
        eq(challenges.browserHash, browserHash),
        isNull(challenges.usedAt),
        gt(challenges.expiresAt, now),
      ),
    )
    .orderBy(desc(challenges.createdAt), desc(sql`rowid`))
    .limit(1);
  return row ?? null;
}

/** Counts an attempt before the code is compared. @returns attempts so far, this one included */
export async function countAttempt(tx: Transaction, id: Id<'challenge'>): Promise<number> {
  const [row] = await tx
    .update(challenges)
    .set({ attempts: sql`${challenges.attempts} + 1` })
    .where(eq(challenges.id, id))
    .returning({ attempts: challenges.attempts });
  return row?.attempts ?? Number.POSITIVE_INFINITY;
}

export async function useChallenge(
  tx: Transaction,
  id: Id<'challenge'>,
  now: number,
): Promise<void> {
  await tx.update(challenges).set({ usedAt: now }).where(eq(challenges.id, id));
}

export async function insertDevice(
  tx: Transaction,
  row: typeof devices.$inferInsert,
): Promise<void> {
  await tx.insert(devices).values(row);
}

const deviceByToken = prepared((db) =>
  db
    .select()
    .from(devices)
    .where(
      and(
        eq(devices.tokenHash, sql.placeholder('tokenHash')),
        isNull(devices.endedAt),
        gt(devices.expiresAt, sql.placeholder('now')),
      ),
    )
    .prepare(),
);

export async function findDeviceByToken(
  db: Reading,
  tokenHash: string,
  now: number,
): Promise<DeviceRow | null> {
  const [row] = await deviceByToken(db).all({ tokenHash, now });
  return row ?? null;
}

/** Whether somebody ended a device, or it was taken away. */
export async function isDeviceLeft(db: Reading | Transaction, id: DeviceId): Promise<boolean> {
  const [row] = await db
    .select({ id: devices.id })
    .from(devices)
    .where(and(eq(devices.id, id), isNull(devices.endedAt)));
  return row === undefined;
}

export async function endDevice(tx: Transaction, id: DeviceId, now: number): Promise<void> {
  await tx.update(devices).set({ endedAt: now }).where(eq(devices.id, id));
}

/**
 * The documents of a dispatch that anyone who has this address was given: through it, or, where a protected file
 * went from hand to hand and reached somebody who has it from elsewhere, through another one.
 */
export async function documentsFor(db: Reading, dispatch: DispatchId, address: string) {
  return db
    .selectDistinct({ document: documents, version: versions })
    .from(grants)
    .innerJoin(documents, eq(documents.id, grants.documentId))
    .innerJoin(versions, eq(versions.id, documents.versionId))
    .where(and(inArray(grants.documentId, carriedBy(db, dispatch)), forAddress(db, address)))
    .orderBy(documents.reference);
}

export async function insertLicence(
  tx: Transaction,
  row: typeof licences.$inferInsert,
): Promise<void> {
  await tx.insert(licences).values(row);
}

/** How many opens without a connection were handed in for a licence; `null`: there is none. */
export async function offlineOpensOf(tx: Transaction, id: LicenceId): Promise<number | null> {
  const [row] = await tx
    .select({ opens: licences.offlineOpens })
    .from(licences)
    .where(eq(licences.id, id));
  return row?.opens ?? null;
}

/** Notes what became of the content key on the device of an open. */
export async function noteOnDevice(
  tx: Transaction,
  licence: LicenceId,
  given: Partial<Pick<LicenceRow, 'keyGivenAt' | 'offlineUntil' | 'offlineOpens' | 'statement'>>,
): Promise<void> {
  await tx.update(licences).set(given).where(eq(licences.id, licence));
}

/** Opens of a document on a device that have not reached their end, the newest first. */
export async function openLicences(
  tx: Transaction,
  device: DeviceId,
  document: DocumentId,
  now: number,
): Promise<LicenceRow[]> {
  return tx
    .select()
    .from(licences)
    .where(
      and(
        eq(licences.deviceId, device),
        eq(licences.documentId, document),
        gt(licences.expiresAt, now),
      ),
    )
    .orderBy(desc(licences.openedAt), desc(sql`rowid`));
}

const licenceById = prepared((db) =>
  db
    .select({ licence: licences, document: documents, version: versions, dispatch: dispatches })
    .from(licences)
    .innerJoin(documents, eq(documents.id, licences.documentId))
    .innerJoin(versions, eq(versions.id, licences.versionId))
    .innerJoin(grants, eq(grants.id, licences.grantId))
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .where(eq(licences.id, sql.placeholder('id')))
    .prepare(),
);

export async function findLicence(db: Reading, id: LicenceId) {
  const [row] = await licenceById(db).all({ id });
  return row ?? null;
}

/** Adds to how long pages were in view in one open, each for `most` ms at the longest. */
export async function noteShownFor(
  tx: Transaction,
  licence: LicenceId,
  pages: readonly { readonly page: number; readonly shown: number }[],
  most: number,
): Promise<void> {
  for (const { page, shown } of pages)
    await tx
      .update(licencePages)
      .set({ shownFor: sql`min(${most}, ${licencePages.shownFor} + ${shown})` })
      .where(and(eq(licencePages.licenceId, licence), eq(licencePages.page, page)));
}

/** @returns whether this page is shown for the first time in this open */
export async function noteShownPage(
  tx: Transaction,
  licence: LicenceId,
  page: number,
): Promise<boolean> {
  const rows = await tx
    .insert(licencePages)
    .values({ licenceId: licence, page })
    .onConflictDoNothing()
    .returning();
  return rows.length > 0;
}
