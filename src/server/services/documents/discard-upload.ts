import 'server-only';
import { DAY } from '@/core/base/time';
import { pagesKey } from '@/core/content/blob-keys';
import type { UploadRow } from '@/server/repositories/documents/upload-repository';
import {
  removeUpload,
  uploadsUntouchedSince,
} from '@/server/repositories/documents/upload-repository';
import type { Deps } from '@/server/services/base/deps';

/** Ends an upload and removes every byte of it. */
export async function discardUpload(deps: Deps, upload: UploadRow): Promise<void> {
  // The file first: where the disk is full, it is what makes room to write the rest down.
  await deps.blobs.remove(upload.blobKey);
  await deps.blobs.remove(pagesKey(upload.blobKey));
  await deps.db.write((tx) => removeUpload(tx, upload.id));
}

/** How long an upload may rest before it counts as abandoned. */
const RESTS_AT_MOST = DAY;

/** Ends every upload that nobody went on with, so that half a file does not lie here for good. */
export async function clearAbandonedUploads(deps: Deps): Promise<void> {
  for (const upload of await uploadsUntouchedSince(deps.db.read, deps.clock.now() - RESTS_AT_MOST))
    await discardUpload(deps, upload);
}
