import 'server-only';
import { and, desc, eq, isNull, lte } from 'drizzle-orm';
import type { DeviceId, Id } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { devices, passkeyChallenges, passkeys } from '@/server/db/schema/reading';

export type PasskeyRow = typeof passkeys.$inferSelect;

/** The passkeys of an address that were not removed, the newest first. */
export async function passkeysOf(
  db: Reading | Transaction,
  address: string,
): Promise<PasskeyRow[]> {
  return db
    .select()
    .from(passkeys)
    .where(and(eq(passkeys.address, address), isNull(passkeys.endedAt)))
    .orderBy(desc(passkeys.createdAt));
}

/** The same as people are told of them. */
export async function listPasskeys(db: Reading, address: string) {
  return db
    .select({
      id: passkeys.id,
      label: passkeys.label,
      since: passkeys.createdAt,
      usedAt: passkeys.usedAt,
    })
    .from(passkeys)
    .where(and(eq(passkeys.address, address), isNull(passkeys.endedAt)))
    .orderBy(desc(passkeys.createdAt));
}

/** A passkey that was not removed, by its credential id. */
export async function findPasskey(db: Reading, credential: string): Promise<PasskeyRow | null> {
  const [row] = await db
    .select()
    .from(passkeys)
    .where(and(eq(passkeys.credential, credential), isNull(passkeys.endedAt)));
  return row ?? null;
}

export async function insertPasskey(
  tx: Transaction,
  row: typeof passkeys.$inferInsert,
): Promise<void> {
  await tx.insert(passkeys).values(row);
}

/** Notes that a passkey was used. @param counter what it counted, from which the next use is told from a copy's */
export async function countPasskey(
  tx: Transaction,
  id: Id<'passkey'>,
  counter: number,
  now: number,
): Promise<void> {
  await tx.update(passkeys).set({ counter, usedAt: now }).where(eq(passkeys.id, id));
}

export async function endPasskey(tx: Transaction, id: Id<'passkey'>, now: number): Promise<void> {
  await tx.update(passkeys).set({ endedAt: now }).where(eq(passkeys.id, id));
}

/** Notes on a device that a passkey was used there. */
export async function notePasskeyAt(tx: Transaction, id: DeviceId, now: number): Promise<void> {
  await tx.update(devices).set({ passkeyAt: now }).where(eq(devices.id, id));
}

/** Takes from every device of an address that a passkey was used there. */
export async function forgetPasskeyUses(tx: Transaction, address: string): Promise<void> {
  await tx.update(devices).set({ passkeyAt: null }).where(eq(devices.address, address));
}

/** Keeps the one challenge that a browser is to answer; those whose time is over go. */
export async function putPasskeyChallenge(
  tx: Transaction,
  row: typeof passkeyChallenges.$inferInsert,
  now: number,
): Promise<void> {
  await tx.delete(passkeyChallenges).where(lte(passkeyChallenges.expiresAt, now));
  const { challenge, expiresAt } = row;
  await tx
    .insert(passkeyChallenges)
    .values(row)
    .onConflictDoUpdate({ target: passkeyChallenges.holder, set: { challenge, expiresAt } });
}

/** Takes the challenge that a browser was to answer, so that it can be answered once. */
export async function takePasskeyChallenge(
  tx: Transaction,
  holder: string,
  now: number,
): Promise<string | null> {
  const [row] = await tx
    .delete(passkeyChallenges)
    .where(eq(passkeyChallenges.holder, holder))
    .returning();
  return row === undefined || row.expiresAt <= now ? null : row.challenge;
}
