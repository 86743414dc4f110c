import 'server-only';
import type { UploadRow } from '@/server/repositories/document-repository';
import { removeUpload } from '@/server/repositories/document-repository';
import type { Deps } from '@/server/services/deps';

/** Ends an upload and removes every byte of it. */
export async function discardUpload(deps: Deps, upload: UploadRow): Promise<void> {
  await deps.db.write((tx) => removeUpload(tx, upload.id));
  await deps.blobs.remove(upload.blobKey);
}
