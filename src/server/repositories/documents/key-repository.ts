import 'server-only';
import { and, desc, eq, isNotNull, isNull, lt, sql } from 'drizzle-orm';
import type { Action } from '@/core/ledger/entry';
import type { Reading, Transaction } from '@/server/db/database';
import { documents, uploads, versions } from '@/server/db/schema/documents';
import { ledgerEntries } from '@/server/db/schema/ledger';
import { serviceKeys } from '@/server/db/schema/organisation';
import { staff } from '@/server/db/schema/staff';

type WrappedKey = { readonly wrapped: Buffer; readonly generation: number };
/** A wrapped key, whose it is, and how to put another wrap in its place. */
export type StoredWrap = WrappedKey & {
  readonly owner: string;
  readonly replace: (tx: Transaction, by: WrappedKey) => Promise<void>;
};

/** Up to `limit` keys of documents, uploads and second factors that are wrapped under a generation before this one. */
export async function wrapsBefore(
  db: Reading | Transaction,
  generation: number,
  limit: number,
): Promise<StoredWrap[]> {
  const stored: StoredWrap[] = [];
  for (const { id, wrappedKey, keyGeneration } of await db
    .select({
      id: versions.id,
      wrappedKey: versions.wrappedKey,
      keyGeneration: versions.keyGeneration,
    })
    .from(versions)
    .where(and(isNotNull(versions.wrappedKey), lt(versions.keyGeneration, generation)))
    .limit(limit)) {
    if (wrappedKey !== null)
      stored.push({
        owner: id,
        wrapped: wrappedKey,
        generation: keyGeneration,
        replace: async (tx, by) => {
          await tx
            .update(versions)
            .set({ wrappedKey: by.wrapped, keyGeneration: by.generation })
            .where(eq(versions.id, id));
        },
      });
  }
  for (const { id, versionId, wrappedKey, keyGeneration } of await db
    .select({
      id: uploads.id,
      versionId: uploads.versionId,
      wrappedKey: uploads.wrappedKey,
      keyGeneration: uploads.keyGeneration,
    })
    .from(uploads)
    .where(lt(uploads.keyGeneration, generation))
    .limit(limit)) {
    stored.push({
      owner: versionId,
      wrapped: wrappedKey,
      generation: keyGeneration,
      replace: async (tx, by) => {
        await tx
          .update(uploads)
          .set({ wrappedKey: by.wrapped, keyGeneration: by.generation })
          .where(eq(uploads.id, id));
      },
    });
  }
  for (const { id, factor, factorGeneration } of await db
    .select({ id: staff.id, factor: staff.factor, factorGeneration: staff.factorGeneration })
    .from(staff)
    .where(and(isNotNull(staff.factor), lt(staff.factorGeneration, generation)))
    .limit(limit)) {
    if (factor !== null)
      stored.push({
        owner: `factor ${id}`,
        wrapped: factor,
        generation: factorGeneration ?? 0,
        replace: async (tx, by) => {
          await tx
            .update(staff)
            .set({ factor: by.wrapped, factorGeneration: by.generation })
            .where(eq(staff.id, id));
        },
      });
  }
  return stored.slice(0, limit);
}

/** The service's own keys that are wrapped under a generation before this one. */
export async function serviceWrapsBefore(
  db: Reading | Transaction,
  generation: number,
): Promise<StoredWrap[]> {
  const rows = await db
    .select({
      name: serviceKeys.name,
      wrapped: serviceKeys.wrapped,
      generation: serviceKeys.generation,
    })
    .from(serviceKeys)
    .where(lt(serviceKeys.generation, generation));
  return rows.map(({ name, ...wrap }) => ({
    ...wrap,
    owner: name,
    replace: async (tx, by) => {
      await tx
        .update(serviceKeys)
        .set({ wrapped: by.wrapped, generation: by.generation })
        .where(eq(serviceKeys.name, name));
    },
  }));
}

/** How many keys of documents, uploads and second factors there are under a generation before this one. */
export async function countWrapsBefore(db: Reading, generation: number): Promise<number> {
  const [documents, taking, factors] = await Promise.all([
    db.$count(
      versions,
      and(isNotNull(versions.wrappedKey), lt(versions.keyGeneration, generation)),
    ),
    db.$count(uploads, lt(uploads.keyGeneration, generation)),
    db.$count(staff, and(isNotNull(staff.factor), lt(staff.factorGeneration, generation))),
  ]);
  return documents + taking + factors;
}

/** Versions by whether they still have a key, and whether this recovery key opens them. */
export async function countVersions(
  db: Reading,
  recoveryKey: string | null,
): Promise<{
  readonly versions: number;
  readonly recoverable: number;
  readonly destroyed: number;
}> {
  const [all, recoverable, destroyed] = await Promise.all([
    db.$count(versions),
    recoveryKey === null ? 0 : db.$count(versions, eq(versions.recoveryKey, recoveryKey)),
    db.$count(versions, isNull(versions.wrappedKey)),
  ]);
  return { versions: all, recoverable, destroyed };
}

/** A document of which this recovery key opens the current version, chosen at random. */
export async function anyRecoverable(db: Reading, recoveryKey: string) {
  const [row] = await db
    .select({ document: documents, version: versions })
    .from(documents)
    .innerJoin(versions, eq(versions.id, documents.versionId))
    .where(
      and(
        eq(versions.recoveryKey, recoveryKey),
        isNotNull(versions.wrappedKey),
        // What is not here cannot be tried.
        eq(versions.isLocal, false),
      ),
    )
    .orderBy(sql`random()`)
    .limit(1);
  return row ?? null;
}

/** When something was last done, by whom, and with what outcome. */
export async function lastEntry(
  db: Reading,
  action: Action,
): Promise<{
  readonly at: number;
  readonly by: string | null;
  readonly outcome: string | null;
} | null> {
  const [row] = await db
    .select({
      occurredAt: ledgerEntries.occurredAt,
      outcome: ledgerEntries.outcome,
      by: staff.name,
    })
    .from(ledgerEntries)
    .leftJoin(staff, eq(staff.id, sql`json_extract(${ledgerEntries.body}, '$.actor.id')`))
    .where(eq(ledgerEntries.action, action))
    .orderBy(desc(ledgerEntries.sequence))
    .limit(1);
  return row === undefined
    ? null
    : { at: Date.parse(row.occurredAt ?? ''), by: row.by, outcome: row.outcome };
}
