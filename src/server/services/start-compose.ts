import 'server-only';
import { DAY, HOUR } from '@/core/base/time';
import type { ComposeStart } from '@/contracts/draft';
import type { DraftId } from '@/core/base/ids';
import { reaches } from '@/core/policy/powers';
import { draftsOf } from '@/server/repositories/draft-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { listDocuments } from '@/server/services/list-documents';

/** Access ends after so long unless somebody decides otherwise. */
const DEFAULT_WINDOW = 30 * DAY;

/** What a dispatch begins with: the documents there are, one's drafts, and the draft that was asked for. */
export async function startCompose(deps: Deps, actor: StaffActor, { draft }: { readonly draft: DraftId | null }): Promise<ComposeStart> {
  const now = deps.clock.now();
  const drafts = await draftsOf(deps.db.read, actor.id);
  return {
    documents: (await listDocuments(deps)).filter((document) => reaches(actor, { owner: document.ownerId })), defaultUntil: Math.ceil((now + DEFAULT_WINDOW) / HOUR) * HOUR, now, mail: deps.mailer !== null,
    draft: drafts.find((each) => each.id === draft) ?? null,
    drafts: drafts.filter((each) => each.id !== draft).map(({ id, body, updatedAt }) => ({ id, subject: body.subject, updatedAt })),
  };
}
