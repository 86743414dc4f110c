import 'server-only';
import type { FileInput } from '@/contracts/document';
import type { ImpactFound } from '@/contracts/impact';
import { watermarkUnder } from '@/core/policy/defaults';
import { impactOn, type Impact } from '@/core/policy/impact';
import { reaching } from '@/core/policy/levels';
import { folderParents, listCeilings } from '@/server/repositories/ceiling-repository';
import { listDefaults } from '@/server/repositories/defaults-repository';
import { termsOf } from '@/server/repositories/dispatch-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { impactOf } from '@/server/services/impact';

const OTHER_WATERMARK: Impact = { lost: [], gained: [], until: null, ends: false, revives: false, other: true };

/** Whom filing documents otherwise would touch, by the ceilings and watermarks of where they come to lie, before it is done. */
export async function previewFiling(deps: Deps, _actor: StaffActor, { documents, folderId, markingId }: FileInput): Promise<ImpactFound> {
  const now = deps.clock.now();
  const [ceilings, defaults, parents] = await Promise.all([listCeilings(deps.db.read), listDefaults(deps.db.read), folderParents(deps.db.read)]);
  const own = [...ceilings, ...defaults].filter(({ level }) => level === 'document').map(({ subject }) => subject);
  return impactOf(deps, now, { filing: true, own, documents }, (grants) => {
    const before = { document: grants.own ?? '', marking: grants.markingId, folder: grants.folderId };
    const after = { ...before, marking: markingId === undefined ? before.marking : markingId, folder: folderId === undefined ? before.folder : folderId };
    const impact = impactOn(termsOf({ ...grants, fromAt: grants.from, untilAt: grants.until }), grants.givenAt, reaching(before, ceilings, parents), reaching(after, ceilings, parents), now);
    if (impact !== null) return impact;
    return watermarkUnder('', reaching(before, defaults, parents)) === watermarkUnder('', reaching(after, defaults, parents)) ? null : OTHER_WATERMARK;
  });
}
