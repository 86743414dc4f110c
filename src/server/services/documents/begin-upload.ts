import 'server-only';
import { newId } from '@/core/base/ids';
import {
  PART,
  type BeginUploadInput,
  type BeginUploadResult,
  type HalfUpload,
} from '@/contracts/document';
import { MAX_DOCUMENT } from '@/core/content/sizes';
import { ContentError } from '@/core/pages/errors';
import { insertUpload, uploadsOf } from '@/server/repositories/documents/upload-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { needDocument } from '@/server/services/access/revoke-document';
import { ServiceError } from '@/server/services/base/errors';
import { writeHead } from '@/server/services/documents/write-head';

/**
 * Starts taking in a file: makes its key, writes the head of the sealed file. The content then
 * comes in parts.
 *
 * @throws ContentError `EMPTY_FILE`; ServiceError `TOO_LARGE`
 */
export async function beginUpload(
  deps: Deps,
  actor: StaffActor,
  input: BeginUploadInput,
): Promise<BeginUploadResult> {
  if (input.bytes === 0) throw new ContentError('EMPTY_FILE');
  if (input.bytes > MAX_DOCUMENT) throw new ServiceError('file-too-large');
  const { revises } = input;
  const revised =
    revises === undefined ? null : await deps.db.write((tx) => needDocument(tx, actor, revises));
  const versionId = newId('version', deps.random);
  const { fileKey, headerBytes, recoveryKey } = await writeHead(
    deps,
    versionId,
    revised?.document.recoverable ?? input.recoverable ?? true,
  );
  const id = newId('upload', deps.random);
  const now = deps.clock.now();
  await deps.db.write((tx) => {
    const { wrapped, generation } = deps.vault.wrap(fileKey, versionId);
    return insertUpload(tx, {
      id,
      versionId,
      staffId: actor.id,
      documentId: revises ?? null,
      fileName: input.fileName,
      declaredBytes: input.bytes,
      receivedBytes: 0,
      blobKey: versionId,
      headerBytes,
      wrappedKey: wrapped,
      keyGeneration: generation,
      recoveryKey,
      createdAt: now,
      updatedAt: now,
    });
  });
  return { id, partBytes: PART };
}

/** What somebody began to upload and has not finished: it can be gone on with, or dropped. */
export async function listUploads(
  deps: Pick<Deps, 'db'>,
  actor: StaffActor,
): Promise<readonly HalfUpload[]> {
  return (await uploadsOf(deps.db.read, actor.id)).map(
    ({ id, fileName, declaredBytes, receivedBytes, updatedAt }) => ({
      id,
      fileName,
      bytes: declaredBytes,
      receivedBytes,
      partBytes: PART,
      updatedAt,
    }),
  );
}
