import 'server-only';
import { deviceName } from '@/core/insight/device-label';
import { eq, inArray, sql, type SQL } from 'drizzle-orm';
import type { SQLiteColumn } from 'drizzle-orm/sqlite-core';
import { isId, type IdKind } from '@/core/base/ids';
import { addresseeName } from '@/core/policy/addressee-name';
import type { Reading } from '@/server/db/database';
import { devices } from '@/server/db/schema/reading';
import { dispatches, savedTerms } from '@/server/db/schema/dispatching';
import { documents, folders, markings, versions } from '@/server/db/schema/documents';
import { grants } from '@/server/db/schema/access';
import { groups, recipients } from '@/server/db/schema/people';
import { staff } from '@/server/db/schema/staff';

type Named = { readonly id: string; readonly name: string };
type Among = (column: SQLiteColumn) => SQL | undefined;

const addressee = { kind: recipients.kind, name: recipients.name, address: recipients.address };

/** Who stands behind an id of each kind. A grant is called by whom it is for. */
const sources: Partial<Record<IdKind, (db: Reading, among: Among) => Promise<readonly Named[]>>> = {
  recipient: async (db, among) =>
    (
      await db
        .select({ id: recipients.id, ...addressee })
        .from(recipients)
        .where(among(recipients.id))
    ).map((row) => ({ id: row.id, name: addresseeName(row) })),
  document: (db, among) =>
    db
      .select({ id: documents.id, name: documents.title })
      .from(documents)
      .where(among(documents.id)),
  dispatch: (db, among) =>
    db
      .select({ id: dispatches.id, name: dispatches.reference })
      .from(dispatches)
      .where(among(dispatches.id)),
  staff: (db, among) =>
    db.select({ id: staff.id, name: staff.name }).from(staff).where(among(staff.id)),
  folder: (db, among) =>
    db.select({ id: folders.id, name: folders.name }).from(folders).where(among(folders.id)),
  marking: (db, among) =>
    db.select({ id: markings.id, name: markings.name }).from(markings).where(among(markings.id)),
  group: (db, among) =>
    db.select({ id: groups.id, name: groups.name }).from(groups).where(among(groups.id)),
  terms: (db, among) =>
    db
      .select({ id: savedTerms.id, name: savedTerms.name })
      .from(savedTerms)
      .where(among(savedTerms.id)),
  version: async (db, among) =>
    (
      await db
        .select({ id: versions.id, number: versions.number })
        .from(versions)
        .where(among(versions.id))
    ).map(({ id, number }) => ({ id, name: String(number) })),
  device: async (db, among) =>
    (
      await db
        .select({ id: devices.id, label: devices.label, kept: devices.kept })
        .from(devices)
        .where(among(devices.id))
    ).map(({ id, label, kept }) => ({ id, name: deviceName(label, kept) })),
  grant: async (db, among) => {
    const rows = await db
      .select({ id: grants.id, ...addressee, dispatch: dispatches.reference })
      .from(grants)
      .innerJoin(recipients, eq(recipients.id, grants.recipientId))
      .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
      .where(
        among(grants.id) ??
          inArray(grants.id, sql`(SELECT parent_id FROM grants WHERE parent_id IS NOT NULL)`),
      );
    return rows.map((row) => ({ id: row.id, name: `${addresseeName(row)}, ${row.dispatch}` }));
  },
};

function mapOf(found: readonly (readonly Named[])[]): Map<string, string> {
  return new Map(found.flat().map(({ id, name }): [string, string] => [id, name]));
}

/** Names for these ids; those of which nothing is known are missing. */
export async function namesOf(db: Reading, ids: readonly string[]): Promise<Map<string, string>> {
  const asked = Object.entries(sources)
    .map(([kind, find]) => ({ find, own: ids.filter((id) => isId(kind as IdKind, id)) }))
    .filter(({ own }) => own.length > 0);
  return mapOf(
    await Promise.all(asked.map(({ find, own }) => find(db, (column) => inArray(column, own)))),
  );
}

/** Names for every id there is; of grants, for those beneath which others stand. */
export async function allNames(db: Reading): Promise<Map<string, string>> {
  return mapOf(await Promise.all(Object.values(sources).map((find) => find(db, () => undefined))));
}
