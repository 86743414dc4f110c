import 'server-only';
import type { DocumentId } from '@/core/base/ids';
import { reaches } from '@/core/policy/permissions';
import { findDocument } from '@/server/repositories/documents/document-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';

/** A document with its newest version. */
export type FoundDocument = NonNullable<Awaited<ReturnType<typeof findDocument>>>;

/**
 * A document that somebody answers for: as its owner, its deputy or an administrator.
 *
 * @param problem what is said to anybody else
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`
 */
export async function needOwnDocument(
  deps: Pick<Deps, 'db'>,
  actor: StaffActor,
  id: DocumentId,
  problem: 'check-of-others' | 'comments-of-others' | 'paper-of-others' | 'revisions-of-others',
): Promise<FoundDocument> {
  const found = await findDocument(deps.db.read, id);
  if (found === null) throw new ServiceError('no-document');
  const { ownerId, deputyId } = found.document;
  if (!reaches(actor, { owner: ownerId, deputy: deputyId })) throw new ServiceError(problem);
  return found;
}
