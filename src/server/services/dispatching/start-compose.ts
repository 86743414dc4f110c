import 'server-only';
import type { ComposeStart } from '@/contracts/draft';
import type { DocumentId, DraftId } from '@/core/base/ids';
import { draftsOf } from '@/server/repositories/dispatching/draft-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { folderParents } from '@/server/repositories/policy/ceiling-repository';
import { viewCeilings } from '@/server/services/policy/manage-ceilings';
import { viewDefaults } from '@/server/services/policy/manage-defaults';
import { viewOwnLimits } from '@/server/services/policy/sender-limits';
import { viewRules } from '@/server/services/policy/manage-rules';
import { listMarkings, listSavedTerms } from '@/server/repositories/documents/filing-repository';
import { documentRows, listDocuments } from '@/server/services/documents/list-documents';

/**
 * What a dispatch begins with: documents to choose from, saved terms, one's drafts, and the draft
 * that was asked for.
 */
export async function startCompose(
  deps: Deps,
  actor: StaffActor,
  { draft, chosen }: { readonly draft: DraftId | null; readonly chosen: readonly DocumentId[] },
): Promise<ComposeStart> {
  const now = deps.clock.now();
  const drafts = await draftsOf(deps.db.read, actor.id);
  const begun = drafts.find((each) => each.id === draft) ?? null;
  const [markings, rows, defaults, rules, limits, parents] = await Promise.all([
    listMarkings(deps.db.read),
    viewCeilings(deps),
    viewDefaults(deps),
    viewRules(deps),
    viewOwnLimits(deps, actor),
    folderParents(deps.db.read),
  ]);
  const [picked, first, terms] = await Promise.all([
    documentRows(deps, [...chosen, ...(begun?.body.sheet.documents ?? [])]),
    listDocuments(deps, actor, { q: '', own: 'true' }),
    listSavedTerms(deps.db.read),
  ]);
  return {
    picked,
    documents: first,
    terms,
    markings,
    ceilings: rows,
    defaults,
    rules,
    limits,
    parents: Object.fromEntries(parents),
    now,
    mail: deps.mailer !== null,
    draft: begun,
    drafts: drafts
      .filter((each) => each.id !== draft)
      .map(({ id, body, updatedAt }) => ({ id, subject: body.subject, updatedAt })),
  };
}
