import 'server-only';
import type { DocumentId, FolderId } from '@/core/base/ids';
import type { Standing } from '@/core/policy/levels';
import { imposedOn, loosened, type Levels } from '@/core/policy/loosened';
import { holds } from '@/core/policy/permissions';
import type { Transaction } from '@/server/db/database';
import { folderParents, listCeilings } from '@/server/repositories/policy/ceiling-repository';
import { listDefaults } from '@/server/repositories/policy/defaults-repository';
import type { StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { subjectNames } from '@/server/services/base/level-subjects';

/** A document, and where it stands before and after a change. */
export type Moved = { readonly before: Standing; readonly after: Standing };

async function levelsNow(tx: Transaction): Promise<Levels> {
  return {
    ceilings: await listCeilings(tx),
    marks: await listDefaults(tx),
    parents: await folderParents(tx),
  };
}

/**
 * Refuses a move by which documents would come from under a ceiling or a required watermark, to
 * anyone who could not have lifted it.
 *
 * @param parents which folder will lie in which; as now where it is left out
 * @throws ServiceError `NOT_ALLOWED` with what would be left behind
 */
export async function needNothingLoosened(
  tx: Transaction,
  actor: StaffActor,
  moved: readonly Moved[],
  parents?: ReadonlyMap<FolderId, FolderId | null>,
): Promise<void> {
  if (holds(actor.role, 'settings')) return;
  const levels = await levelsNow(tx);
  const after = parents === undefined ? levels : { ...levels, parents };
  for (const each of moved) {
    const lifted = loosened(imposedOn(each.before, levels), imposedOn(each.after, after));
    if (lifted === null) continue;
    const name = (await subjectNames(tx, [each.before.document as DocumentId]))(lifted);
    throw new ServiceError('limits-left-behind', {
      name: lifted.level === 'organisation' ? null : (name ?? ''),
    });
  }
}
