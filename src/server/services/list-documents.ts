import 'server-only';
import type { DocumentRow } from '@/contracts/document';
import { listDocumentRows } from '@/server/repositories/document-repository';
import type { Deps } from '@/server/services/deps';

/** Every document, the newest first. */
export async function listDocuments(deps: Deps): Promise<readonly DocumentRow[]> {
  const rows = await listDocumentRows(deps.db.read);
  return rows.map(({ revokedAt, people, opens, ...row }) => ({ ...row, revoked: revokedAt !== null, people: people ?? 0, opens: opens ?? 0 }));
}
