import 'server-only';
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { GrantId, StaffId } from '@/core/base/ids';
import { type Conditions } from '@/core/policy/conditions';
import type { Right, Terms } from '@/core/policy/rights';
import type { Transaction } from '@/server/db/database';
import { grants, links } from '@/server/db/schema/access';
import { type GrantRecord } from '@/server/repositories/access/grant-reader';
import { among } from '@/server/repositories/access/wider-repository';

export async function insertGrants(
  tx: Transaction,
  grantRows: readonly (typeof grants.$inferInsert)[],
  linkRows: readonly (typeof links.$inferInsert)[],
): Promise<void> {
  for (let at = 0; at < grantRows.length; at += 500)
    await tx.insert(grants).values(grantRows.slice(at, at + 500));
  if (linkRows.length > 0) await tx.insert(links).values([...linkRows]);
}

export async function setGrantsRevoked(
  tx: Transaction,
  ids: readonly GrantId[],
  by: StaffId,
  now: number,
): Promise<GrantRecord[]> {
  return tx
    .update(grants)
    .set({ revokedAt: now, revokedBy: by, revision: sql`${grants.revision} + 1` })
    .where(and(inArray(grants.id, [...ids]), sql`${grants.revokedAt} IS NULL`))
    .returning();
}

/** Revokes grants of which all are known to be live. */
export async function setAllRevoked(
  tx: Transaction,
  ids: readonly GrantId[],
  by: StaffId,
  now: number,
): Promise<void> {
  await tx.run(
    sql`UPDATE grants SET revoked_at = ${now}, revoked_by = ${by}, revision = revision + 1
      WHERE id IN (SELECT value FROM json_each(${JSON.stringify(ids)}))`,
  );
}

export async function setGrantsReinstated(
  tx: Transaction,
  ids: readonly GrantId[],
): Promise<GrantRecord[]> {
  return tx
    .update(grants)
    .set({ revokedAt: null, revokedBy: null, revision: sql`${grants.revision} + 1` })
    .where(and(inArray(grants.id, [...ids]), sql`${grants.revokedAt} IS NOT NULL`))
    .returning();
}

/** Gives grants the terms that their kept ones have come to. */
export async function setTermsOfGrants(
  tx: Transaction,
  ids: readonly GrantId[],
  { rights, until, prints, conditions }: Terms,
): Promise<void> {
  await tx
    .update(grants)
    .set({
      rights,
      untilAt: until,
      prints,
      conditions: conditions ?? null,
      revision: sql`${grants.revision} + 1`,
    })
    .where(sql`${grants.id} IN (SELECT value FROM json_each(${JSON.stringify(ids)}))`);
}

/**
 * Changes a grant that is still at this revision; `null` where somebody was faster. It follows no
 * saved terms from then on.
 */
export async function setGrantTerms(
  tx: Transaction,
  id: GrantId,
  revision: number,
  {
    until,
    rights,
    prints,
    conditions,
  }: {
    readonly until: number | null;
    readonly rights: readonly Right[];
    readonly prints: number | null;
    readonly conditions: Conditions | null;
  },
): Promise<GrantRecord | null> {
  const [row] = await tx
    .update(grants)
    .set({
      untilAt: until,
      rights,
      prints,
      conditions,
      termsId: null,
      follows: false,
      revision: sql`${grants.revision} + 1`,
    })
    .where(and(eq(grants.id, id), eq(grants.revision, revision)))
    .returning();
  return row ?? null;
}

/** Gives grants the terms of the one above them. */
export async function setTermsAsAbove(
  tx: Transaction,
  ids: readonly GrantId[],
  { rights, untilAt, prints, conditions }: GrantRecord,
): Promise<void> {
  await tx
    .update(grants)
    .set({
      rights,
      untilAt,
      prints,
      conditions,
      termsId: null,
      revision: sql`${grants.revision} + 1`,
    })
    .where(sql`${grants.id} IN ${among(ids)}`);
}

export async function setAbove(tx: Transaction, id: GrantId, above: GrantId): Promise<void> {
  await tx.update(grants).set({ parentId: above }).where(eq(grants.id, id));
}

/** Notes on grants just revoked that it was because their people left the group. */
export async function noteLeft(
  tx: Transaction,
  ids: readonly GrantId[],
  now: number,
): Promise<void> {
  await tx
    .update(grants)
    .set({ leftAt: now })
    .where(sql`${grants.id} IN ${among(ids)}`);
}

export async function noteBack(tx: Transaction, ids: readonly GrantId[]): Promise<void> {
  await tx
    .update(grants)
    .set({ leftAt: null })
    .where(sql`${grants.id} IN ${among(ids)}`);
}
