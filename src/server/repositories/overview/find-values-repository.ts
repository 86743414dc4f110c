import 'server-only';
import { desc, eq } from 'drizzle-orm';
import type { Reading } from '@/server/db/database';
import { devices } from '@/server/db/schema/reading';
import { documents, versions } from '@/server/db/schema/documents';
import { staff } from '@/server/db/schema/staff';
import { holding } from '@/server/repositories/access/holding';

/** Colleagues whose name or address holds a text. */
export function findStaffByText(db: Reading, text: string, limit: number) {
  return db
    .select({ id: staff.id, name: staff.name, email: staff.email })
    .from(staff)
    .where(holding(text, staff.name, staff.email))
    .orderBy(staff.name)
    .limit(limit);
}

/** Devices whose name, or whose owner's address, holds a text; the newest first. */
export function findDevices(db: Reading, text: string, limit: number) {
  return db
    .select({ id: devices.id, label: devices.label, address: devices.address })
    .from(devices)
    .where(holding(text, devices.label, devices.address))
    .orderBy(desc(devices.createdAt))
    .limit(limit);
}

/** Versions of documents whose title or reference holds a text; the newest first. */
export function findVersions(db: Reading, text: string, limit: number) {
  return db
    .select({ id: versions.id, number: versions.number, title: documents.title })
    .from(versions)
    .innerJoin(documents, eq(documents.id, versions.documentId))
    .where(holding(text, documents.title, documents.reference))
    .orderBy(documents.title, desc(versions.number))
    .limit(limit);
}
