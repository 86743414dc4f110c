import 'server-only';
import type { ComposeStart } from '@/contracts/draft';
import type { DispatchId, DocumentId, DraftId } from '@/core/base/ids';
import type { Take } from '@/core/compose/again';
import { listSavedTexts } from '@/server/repositories/dispatching/text-repository';
import { draftsOf } from '@/server/repositories/dispatching/draft-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { folderParents } from '@/server/repositories/policy/ceiling-repository';
import { readWorkSettings } from '@/server/services/base/work-settings';
import { composeAgain } from '@/server/services/dispatching/compose-again';
import { viewCeilings } from '@/server/services/policy/manage-ceilings';
import { viewDefaults } from '@/server/services/policy/manage-defaults';
import { viewOwnLimits } from '@/server/services/policy/sender-limits';
import { viewRules } from '@/server/services/policy/manage-rules';
import {
  listFolders,
  listMarkings,
  listSavedTerms,
} from '@/server/repositories/documents/filing-repository';
import { documentRows, listDocuments } from '@/server/services/documents/list-documents';

/** What it is begun from: a draft, chosen documents, or a dispatch that is sent the same again. */
type Begin = {
  readonly draft: DraftId | null;
  readonly chosen: readonly DocumentId[];
  readonly again?: { readonly dispatch: DispatchId; readonly take: Take } | null;
};

/**
 * What a dispatch begins with: documents to choose from, saved terms, one's drafts, and the draft
 * that was asked for.
 */
export async function startCompose(
  deps: Deps,
  actor: StaffActor,
  { draft, chosen, again = null }: Begin,
): Promise<ComposeStart> {
  const now = deps.clock.now();
  const drafts = await draftsOf(deps.db.read, actor.id);
  const begun = drafts.find((each) => each.id === draft) ?? null;
  const [markings, rows, defaults, rules, limits, parents, work] = await Promise.all([
    listMarkings(deps.db.read),
    viewCeilings(deps),
    viewDefaults(deps),
    viewRules(deps),
    viewOwnLimits(deps, actor),
    folderParents(deps.db.read),
    readWorkSettings(deps.db.read),
  ]);
  const folders = await listFolders(deps.db.read);
  const same = again === null ? null : await composeAgain(deps, actor, again);
  const wanted = (begun?.body ?? same)?.sheet.documents ?? [];
  const [picked, first, terms, texts] = await Promise.all([
    documentRows(deps, [...chosen, ...wanted]),
    listDocuments(deps, actor, { q: '', own: 'true' }),
    listSavedTerms(deps.db.read),
    listSavedTexts(deps.db.read),
  ]);
  return {
    picked,
    documents: first,
    terms,
    texts,
    markings,
    folders: folders.map(({ createdBy: _createdBy, ...folder }) => folder),
    ceilings: rows,
    defaults,
    rules,
    limits,
    parents: Object.fromEntries(parents),
    now,
    mail: deps.mailer !== null,
    heldFor: work.heldFor,
    draft: begun,
    again: same,
    drafts: drafts
      .filter((each) => each.id !== draft)
      .map(({ id, body, updatedAt }) => ({ id, subject: body.subject, updatedAt })),
  };
}
