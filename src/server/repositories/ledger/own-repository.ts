import 'server-only';
import { sql, type SQL, type SQLWrapper } from 'drizzle-orm';
import type { StaffId } from '@/core/base/ids';

/** The ids of the documents that somebody on the staff answers for, as owner or deputy. */
export function ownDocuments(staff: StaffId): SQL {
  return sql`(SELECT id FROM documents WHERE owner_id = ${staff} OR deputy_id = ${staff})`;
}

/** Of whom something is: somebody's on the staff (`own`), or somebody else's. */
export type Whose = { readonly staff: StaffId; readonly of: 'own' | 'others' };

/**
 * Whether a document or a dispatch is somebody's; `undefined`: it is not asked. `document`,
 * `dispatch`: the columns that name them.
 */
export function isWhose(
  whose: Whose | null,
  document: SQLWrapper | null,
  dispatch: SQLWrapper,
): SQL | undefined {
  if (whose === null) return undefined;
  const own = sql`(${
    document === null
      ? sql`0`
      : sql`coalesce(${document}
    IN ${ownDocuments(whose.staff)},
    0)`
  } OR coalesce(${dispatch} IN ${ownDispatches(whose.staff)}, 0))`;
  return whose.of === 'own' ? own : sql`NOT ${own}`;
}

/** The ids of the dispatches that somebody on the staff sent. */
export function ownDispatches(staff: StaffId): SQL {
  return sql`(SELECT id FROM dispatches WHERE sent_by = ${staff})`;
}
