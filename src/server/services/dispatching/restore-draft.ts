import 'server-only';
import { newId, type DraftId, type StaffId } from '@/core/base/ids';
import type { DraftBody } from '@/core/compose/draft';
import type { Transaction } from '@/server/db/database';
import { putDraft } from '@/server/repositories/dispatching/draft-repository';
import type { Deps } from '@/server/services/base/deps';

/** Makes what a dispatch was composed in a draft of its sender again. */
export async function restoreDraft(
  deps: Pick<Deps, 'random' | 'clock'>,
  tx: Transaction,
  sender: StaffId,
  body: DraftBody,
): Promise<DraftId> {
  const id = newId('draft', deps.random);
  await putDraft(tx, { id, staffId: sender, body, revision: 1, updatedAt: deps.clock.now() });
  return id;
}
