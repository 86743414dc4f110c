import 'server-only';
import { and, eq, gt, isNull, lt, ne, or } from 'drizzle-orm';
import type { StaffId } from '@/core/base/ids';
import type { Role } from '@/core/policy/permissions';
import type { Reading, Transaction } from '@/server/db/database';
import { staff, staffAccounts, staffSessions, staffTickets } from '@/server/db/schema/staff';

export type StaffRecord = typeof staff.$inferSelect;

export async function findStaff(
  db: Reading | Transaction,
  id: StaffId,
): Promise<StaffRecord | null> {
  const [row] = await db.select().from(staff).where(eq(staff.id, id));
  return row ?? null;
}

export async function findStaffByEmail(
  db: Reading | Transaction,
  email: string,
): Promise<StaffRecord | null> {
  const [row] = await db.select().from(staff).where(eq(staff.email, email));
  return row ?? null;
}

export async function listStaff(db: Reading) {
  return db
    .select({ row: staff, hasPassword: staffAccounts.id })
    .from(staff)
    .leftJoin(staffAccounts, eq(staffAccounts.userId, staff.id))
    .orderBy(staff.name);
}

/** Everybody's name, people who left included: what they set still stands. */
export async function namesOfStaff(db: Reading | Transaction): Promise<Map<string, string>> {
  const rows = await db.select({ id: staff.id, name: staff.name }).from(staff);
  return new Map(rows.map(({ id, name }) => [id, name]));
}

/** Colleagues who can own a document: they can sign in, and protect. */
export async function listColleagues(
  db: Reading | Transaction,
): Promise<{ readonly id: StaffId; readonly name: string }[]> {
  return db
    .select({ id: staff.id, name: staff.name })
    .from(staff)
    .where(and(isNull(staff.disabledAt), ne(staff.role, 'auditor')))
    .orderBy(staff.name);
}

/** Adds a member of staff; without a password they cannot sign in yet. */
export async function insertStaff(
  tx: Transaction,
  row: Pick<StaffRecord, 'id' | 'name' | 'email' | 'role'>,
  now: number,
): Promise<void> {
  await tx.insert(staff).values({
    ...row,
    roleSince: now,
    emailVerified: true,
    createdAt: new Date(now),
    updatedAt: new Date(now),
  });
}

/** The id of somebody's password. */
export function accountOf(id: StaffId): string {
  return `account_${id}`;
}

/** Sets a password, hashed already, and ends every session there was. */
export async function setPassword(
  tx: Transaction,
  id: StaffId,
  password: string,
  now: number,
): Promise<void> {
  const at = new Date(now);
  const accountId = accountOf(id);
  await tx
    .insert(staffAccounts)
    .values({
      id: accountId,
      accountId: id,
      providerId: 'credential',
      userId: id,
      password,
      createdAt: at,
      updatedAt: at,
    })
    .onConflictDoUpdate({ target: staffAccounts.id, set: { password, updatedAt: at } });
  await endSessions(tx, id);
}

export async function endSessions(tx: Transaction, id: StaffId): Promise<void> {
  await tx.delete(staffSessions).where(eq(staffSessions.userId, id));
}

/** When a session began, and when who is in it was last proven; ms since the epoch. */
export async function findSession(
  db: Reading,
  id: string,
): Promise<{ readonly createdAt: number; readonly provenAt: number | null } | null> {
  const [row] = await db
    .select({ createdAt: staffSessions.createdAt, provenAt: staffSessions.provenAt })
    .from(staffSessions)
    .where(eq(staffSessions.id, id));
  return row === undefined ? null : { createdAt: row.createdAt.getTime(), provenAt: row.provenAt };
}

export async function setSessionProven(
  tx: Transaction,
  id: string,
  provenAt: number,
): Promise<void> {
  await tx.update(staffSessions).set({ provenAt }).where(eq(staffSessions.id, id));
}

export async function setFactor(
  tx: Transaction,
  id: StaffId,
  factor: Pick<StaffRecord, 'factor' | 'factorGeneration' | 'factorStep'>,
): Promise<void> {
  await tx.update(staff).set(factor).where(eq(staff.id, id));
}

/** Uses a code's time step up. @returns whether it, or a later one, was unused until now */
export async function setFactorStep(tx: Transaction, id: StaffId, step: number): Promise<boolean> {
  const rows = await tx
    .update(staff)
    .set({ factorStep: step })
    .where(and(eq(staff.id, id), or(isNull(staff.factorStep), lt(staff.factorStep, step))))
    .returning({ id: staff.id });
  return rows.length > 0;
}

export async function changeStaffRow(
  tx: Transaction,
  id: StaffId,
  change: {
    readonly role?: Role;
    readonly disabledAt?: number | null;
    readonly roleSince?: number;
  },
  now: number,
): Promise<void> {
  await tx
    .update(staff)
    .set({ ...change, updatedAt: new Date(now) })
    .where(eq(staff.id, id));
}

/** Every administrator who is not disabled. */
export async function listAdministrators(tx: Transaction): Promise<StaffRecord[]> {
  return tx
    .select()
    .from(staff)
    .where(and(eq(staff.role, 'administrator'), isNull(staff.disabledAt)));
}

/** Administrators who can sign in, other than this one. */
export async function otherAdministrators(tx: Transaction, id: StaffId): Promise<number> {
  const rows = await tx
    .select({ id: staff.id })
    .from(staff)
    .innerJoin(staffAccounts, eq(staffAccounts.userId, staff.id))
    .where(and(eq(staff.role, 'administrator'), isNull(staff.disabledAt), ne(staff.id, id)));
  return rows.length;
}

/** Replaces whatever ways to choose a password this person was mailed before. */
export async function replaceTicket(
  tx: Transaction,
  row: typeof staffTickets.$inferInsert,
): Promise<void> {
  await tx.delete(staffTickets).where(eq(staffTickets.staffId, row.staffId));
  await tx.insert(staffTickets).values(row);
}

/** Whether a ticket could be used now. */
export async function isTicket(db: Reading, tokenMac: string, now: number): Promise<boolean> {
  return (
    (await db.$count(
      staffTickets,
      and(
        eq(staffTickets.tokenMac, tokenMac),
        isNull(staffTickets.usedAt),
        gt(staffTickets.expiresAt, now),
      ),
    )) > 0
  );
}

/** Uses a ticket up. @returns whose it was, or `null` where it is unknown, used or over */
export async function takeTicket(
  tx: Transaction,
  tokenMac: string,
  now: number,
): Promise<StaffId | null> {
  const [row] = await tx
    .update(staffTickets)
    .set({ usedAt: now })
    .where(
      and(
        eq(staffTickets.tokenMac, tokenMac),
        isNull(staffTickets.usedAt),
        gt(staffTickets.expiresAt, now),
      ),
    )
    .returning({ staffId: staffTickets.staffId });
  return row?.staffId ?? null;
}
