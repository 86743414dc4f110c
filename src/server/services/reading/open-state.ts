import 'server-only';
import type { DocumentId, StaffId } from '@/core/base/ids';
import type { Decision } from '@/core/policy/decide';
import type { OpenState } from '@/contracts/reader';
import { readsWithAids } from '@/server/services/policy/reading-aids';
import { ownRevisions } from '@/server/services/reading/own-revisions';
import { ownRequests } from '@/server/services/requests/ask-for-more';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { ownPassedOn } from '@/server/services/access/own-passed-on';

/** What somebody may do with a document they have open, and what came of what they asked and passed on. */
export async function openState(
  deps: Pick<Deps, 'db' | 'integrity' | 'clock'>,
  actor: Pick<ReaderActor, 'address' | 'recipient'>,
  { id: document, ownerId }: { readonly id: DocumentId; readonly ownerId: StaffId },
  decision: Decision & { outcome: 'granted' },
): Promise<OpenState> {
  const { until, rights, obligations } = decision;
  const [revisions, aids, passedOn, requests] = await Promise.all([
    actor.recipient === null ? [] : ownRevisions(deps, document, actor.recipient),
    actor.recipient !== null &&
      readsWithAids(deps, deps.db.read, decision, { owner: ownerId, recipient: actor.recipient }),
    ownPassedOn(deps, actor, document),
    ownRequests(deps, actor, document),
  ]);
  const passOn = rights['pass-on'].granted ? obligations.passOn : null;
  return {
    asOf: deps.clock.now(),
    until,
    rights,
    readingAids: aids,
    captureDeterrent: obligations.captureDeterrent,
    offline: obligations.offline,
    passOn,
    passedOn,
    requests,
    revisions,
  };
}
