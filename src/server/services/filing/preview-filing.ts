import 'server-only';
import { isSameWatermark } from '@/core/watermark/layers';
import type { FileInput } from '@/contracts/document';
import type { ImpactFound } from '@/contracts/impact';
import { watermarkUnder } from '@/core/policy/defaults';
import { reaching, type Standing } from '@/core/policy/levels';
import { folderParents, listCeilings } from '@/server/repositories/policy/ceiling-repository';
import { listDefaults } from '@/server/repositories/policy/defaults-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { impactOf } from '@/server/services/policy/impact';

/**
 * Whom filing documents otherwise would touch, by the ceilings and watermarks of where they come to
 * lie, before it is done.
 */
export async function previewFiling(
  deps: Deps,
  _actor: StaffActor,
  { documents, folderId, markingId }: FileInput,
): Promise<ImpactFound> {
  const now = deps.clock.now();
  const [ceilings, defaults, parents] = await Promise.all([
    listCeilings(deps.db.read),
    listDefaults(deps.db.read),
    folderParents(deps.db.read),
  ]);
  const own = [...ceilings, ...defaults]
    .filter(({ level }) => level === 'document')
    .map(({ subject }) => subject);
  const opens = ceilings.some(({ limits }) => limits.opens !== null);
  const filed = (standing: Standing): Standing => ({
    ...standing,
    marking: markingId === undefined ? standing.marking : markingId,
    folder: folderId === undefined ? standing.folder : folderId,
  });
  const watermark = (standing: Standing) =>
    watermarkUnder([], reaching(standing, defaults, parents));
  return impactOf(
    deps,
    now,
    { filing: true, own, documents, opens },
    {
      before: (standing) => reaching(standing, ceilings, parents),
      after: (standing) => reaching(filed(standing), ceilings, parents),
      marks: (standing) => !isSameWatermark(watermark(standing), watermark(filed(standing))),
    },
  );
}
