import 'server-only';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import type { OwnRevision } from '@/contracts/own-revision';
import { revisionsOf } from '@/server/repositories/reading/revision-repository';
import type { Deps } from '@/server/services/base/deps';

/** What somebody sent back of a document, and what came of it. */
export async function ownRevisions(
  { db }: Pick<Deps, 'db'>,
  document: DocumentId,
  recipient: RecipientId,
): Promise<readonly OwnRevision[]> {
  const rows = await revisionsOf(db.read, document, recipient);
  return rows.map(({ revision: { id, sentAt, state, answer }, version: { fileName } }) => ({
    id,
    fileName,
    sentAt,
    state,
    answer,
  }));
}
