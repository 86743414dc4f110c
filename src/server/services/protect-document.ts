import 'server-only';
import { PAYLOAD_NONCE, sealedSize } from '@/core/age/chunks';
import { newId, type DocumentId, type UploadId } from '@/core/base/ids';
import type { FinishUploadInput } from '@/contracts/document';
import { findUpload, insertDocument, referenceTaken, removeUpload, type UploadRow } from '@/server/repositories/document-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { discardUpload } from '@/server/services/discard-upload';
import { ServiceError } from '@/server/services/errors';
import { record } from '@/server/services/record';
import { payloadKeyOf, sealedSource } from '@/server/services/sealed-source';

async function ownUpload(deps: Deps, actor: StaffActor, id: UploadId): Promise<UploadRow> {
  const upload = await findUpload(deps.db.read, id, actor.id);
  if (upload === null) throw new ServiceError('NOT_FOUND', 'This upload is over. Choose the file again.');
  return upload;
}

/**
 * Makes a finished upload a document. The sealed file is opened once, to see that it can be shown;
 * where it cannot, nothing is left behind.
 *
 * @throws ServiceError `CONFLICT` where bytes are missing or the reference is taken; ContentError
 */
export async function protectDocument(deps: Deps, actor: StaffActor, input: FinishUploadInput): Promise<{ readonly id: DocumentId }> {
  const upload = await ownUpload(deps, actor, input.id);
  if (upload.receivedBytes !== upload.declaredBytes) throw new ServiceError('CONFLICT', 'Part of the file is still missing.', { receivedBytes: upload.receivedBytes });
  if (await referenceTaken(deps.db.read, input.reference)) throw new ServiceError('CONFLICT', `Another document already has the reference ${input.reference}.`);

  const fileKey = deps.vault.unwrap({ wrapped: upload.wrappedKey, generation: upload.keyGeneration }, upload.versionId);
  const sealed = { blobKey: upload.blobKey, headerBytes: upload.headerBytes, plainBytes: upload.declaredBytes };
  const { pages } = await deps.renderer.run({ kind: 'inspect', source: sealedSource(deps, sealed, payloadKeyOf(deps, sealed, fileKey)) }).catch(async (error: unknown) => {
    await discardUpload(deps, upload);
    throw error;
  });

  await deps.blobs.finish(upload.blobKey, upload.headerBytes + PAYLOAD_NONCE + sealedSize(upload.declaredBytes));
  const id = newId('document', deps.random);
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    if (await referenceTaken(tx, input.reference)) throw new ServiceError('CONFLICT', `Another document already has the reference ${input.reference}.`);
    await insertDocument(
      tx,
      { id, reference: input.reference, title: input.title, ownerId: actor.id, versionId: upload.versionId, createdAt: now },
      { id: upload.versionId, documentId: id, number: 1, fileName: upload.fileName, pages, bytes: upload.declaredBytes, blobKey: upload.blobKey, headerBytes: upload.headerBytes, wrappedKey: upload.wrappedKey, keyGeneration: upload.keyGeneration, createdAt: now, createdBy: actor.id },
    );
    await removeUpload(tx, upload.id);
    await record(
      deps, tx,
      { action: 'key.unwrapped', outcome: 'done', actor: { kind: 'staff', id: actor.id }, occurredAt: now, document: id, version: upload.versionId, details: { for: 'inspection' } },
      { action: 'document.protected', outcome: 'done', actor: { kind: 'staff', id: actor.id }, occurredAt: now, document: id, version: upload.versionId, details: { reference: input.reference, pages, bytes: upload.declaredBytes } },
    );
  });
  return { id };
}

/** Ends an upload and removes what was received. */
export async function cancelUpload(deps: Deps, actor: StaffActor, input: { readonly id: UploadId }): Promise<Record<string, never>> {
  await discardUpload(deps, await ownUpload(deps, actor, input.id));
  return {};
}
