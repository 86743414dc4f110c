import 'server-only';
import { sql, type SQL } from 'drizzle-orm';
import type { StaffId } from '@/core/base/ids';

/** The ids of the documents that somebody on the staff answers for, as owner or deputy. */
export function ownDocuments(staff: StaffId): SQL {
  return sql`(SELECT id FROM documents WHERE owner_id = ${staff} OR deputy_id = ${staff})`;
}

/** The ids of the dispatches that somebody on the staff sent. */
export function ownDispatches(staff: StaffId): SQL {
  return sql`(SELECT id FROM dispatches WHERE sent_by = ${staff})`;
}
