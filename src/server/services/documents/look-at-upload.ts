import 'server-only';
import type { UploadId } from '@/core/base/ids';
import { referenceFrom } from '@/core/content/names';
import { suggestMarking, suggestReference, suggestTitle } from '@/core/content/suggest';
import type { FileLooked } from '@/contracts/document';
import { listMarkings } from '@/server/repositories/documents/filing-repository';
import { referencesLike } from '@/server/repositories/documents/document-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { recordAlone } from '@/server/services/base/record';
import {
  inspectUpload,
  ownUpload,
  sameDocument,
} from '@/server/services/documents/protect-document';

/**
 * Opens a file that has arrived whole, to suggest its title, a free reference and its marking from
 * what it says itself. Nothing is decided by it.
 *
 * @throws ServiceError `CONFLICT` where bytes are missing; ContentError where it cannot be shown,
 * and nothing of it is left behind
 */
export async function lookAtUpload(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: UploadId },
): Promise<FileLooked> {
  // Two who look at once, or one who protects meanwhile, would each make pages in the same place.
  const { upload, pages, title, text } = await deps.turns.wholes(id, async () => {
    const own = await ownUpload(deps.db.read, actor, id);
    return { upload: own, ...(await inspectUpload(deps, own)) };
  });
  await recordAlone(deps, {
    action: 'key.unwrapped',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
    version: upload.versionId,
    details: { for: 'inspection' },
  });
  const shown = { fileName: upload.fileName, title, text };
  const wanted = suggestReference(shown) ?? referenceFrom(upload.fileName, new Set());
  const [markings, taken] = await Promise.all([
    listMarkings(deps.db.read),
    referencesLike(deps.db.read, wanted),
  ]);
  const marking = suggestMarking(markings, shown);
  return {
    pages,
    title: suggestTitle(shown),
    reference: free(wanted, taken),
    marking: marking === null ? null : { id: marking.id, name: marking.name },
    same: await sameDocument(deps.db.read, actor, upload),
  };
}

/** A reference like the wanted one that no document has. */
function free(wanted: string, taken: ReadonlySet<string>): string {
  for (let n = 1; ; n++) {
    const candidate = n === 1 ? wanted : `${wanted}-${String(n)}`;
    if (!taken.has(candidate)) return candidate;
  }
}
