import 'server-only';
import type { GrantId } from '@/core/base/ids';
import type { Watermark } from '@/core/watermark/layers';
import type { ExplainInput, Explained, SeenAs } from '@/contracts/explain';
import { grantsByIds } from '@/server/repositories/access/grant-reader';
import { findDispatch } from '@/server/repositories/dispatching/dispatch-repository';
import { findDocument } from '@/server/repositories/documents/document-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { explainAccess, personAsked } from '@/server/services/policy/explain-access';

/** The watermark of the dispatch whose grant an open would be charged to; nothing opens: none. */
async function watermarkOf(deps: Pick<Deps, 'db'>, { opens, why }: Explained): Promise<Watermark> {
  if (!opens || why.level !== 'grant') return [];
  const [grant] = await grantsByIds(deps.db.read, [why.subject as GrantId]);
  const sent = grant === undefined ? null : await findDispatch(deps.db.read, grant.dispatchId);
  return sent?.dispatch.watermark ?? [];
}

/**
 * A document as somebody would be shown it, now or at another time, place or device, with every
 * reason. It is no open of theirs: nothing is counted, and that somebody looked is recorded.
 *
 * @throws ServiceError `NOT_FOUND`
 */
export async function seeAs(deps: Deps, actor: StaffActor, input: ExplainInput): Promise<SeenAs> {
  const [explained, found, person] = await Promise.all([
    explainAccess(deps, actor, input),
    findDocument(deps.db.read, input.document),
    personAsked(deps, input),
  ]);
  if (found === null) throw new ServiceError('no-document');
  const { id, title, reference } = found.document;
  const { address, name, organisation } = person;
  return {
    explained,
    document: { id, title, reference, pages: found.version.pages },
    person: { address, name, organisation },
    watermark: await watermarkOf(deps, explained),
  };
}
