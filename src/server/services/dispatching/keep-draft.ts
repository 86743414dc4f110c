import 'server-only';
import { newId, type DraftId } from '@/core/base/ids';
import type { DraftKept, KeepDraftInput } from '@/contracts/draft';
import {
  draftsOf,
  findDraft,
  putDraft,
  removeDraft,
} from '@/server/repositories/dispatching/draft-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';

/** Drafts one person may have: enough for anybody, too few to fill a disk. */
const MOST = 100;

/**
 * Keeps a half-made dispatch for its maker alone. Nothing of it is on the ledger: nothing happened yet.
 *
 * @throws ServiceError `CONFLICT` with too many drafts, or where another window changed it meanwhile
 */
export async function keepDraft(
  deps: Deps,
  actor: StaffActor,
  { id, seen, body }: KeepDraftInput,
): Promise<DraftKept> {
  return deps.db.writeAside(async (tx) => {
    // A draft that was discarded elsewhere comes back as a new one: what was typed is not lost.
    const known = id === null ? null : await findDraft(tx, id, actor.id);
    if (known !== null && known.revision !== seen) throw new ServiceError('draft-changed');
    if (known === null && (await draftsOf(tx, actor.id)).length >= MOST)
      throw new ServiceError('too-many-drafts', { most: MOST });
    const kept = {
      id: known?.id ?? newId('draft', deps.random),
      revision: (known?.revision ?? 0) + 1,
    };
    await putDraft(tx, { ...kept, staffId: actor.id, body, updatedAt: deps.clock.now() });
    return kept;
  });
}

export async function discardDraft(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: DraftId },
): Promise<Record<string, never>> {
  await deps.db.writeAside((tx) => removeDraft(tx, id, actor.id));
  return {};
}
