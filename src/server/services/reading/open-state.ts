import 'server-only';
import type { DocumentId } from '@/core/base/ids';
import type { Decision } from '@/core/policy/decide';
import type { OpenState } from '@/contracts/reader';
import { ownRequests } from '@/server/services/requests/ask-for-more';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { ownPassedOn } from '@/server/services/access/own-passed-on';

/** What somebody may do with a document they have open, and what came of what they asked and passed on. */
export async function openState(
  deps: Pick<Deps, 'db'>,
  actor: Pick<ReaderActor, 'address' | 'recipient'>,
  document: DocumentId,
  decision: Decision & { outcome: 'granted' },
): Promise<OpenState> {
  const { until, rights, obligations } = decision;
  const [passedOn, requests] = await Promise.all([
    ownPassedOn(deps, actor, document),
    ownRequests(deps, actor, document),
  ]);
  const passOn = rights['pass-on'].granted ? obligations.passOn : null;
  return {
    until,
    rights,
    captureDeterrent: obligations.captureDeterrent,
    passOn,
    passedOn,
    requests,
  };
}
