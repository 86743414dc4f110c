import 'server-only';
import { PAYLOAD_NONCE, fileSize, payloadKey, sealChunk } from '@/core/age/chunks';
import { base64 } from '@scure/base';
import { newId, type DocumentId } from '@/core/base/ids';
import { MAX_DOCUMENT } from '@/core/content/sizes';
import { pagesFrom } from '@/core/content/media-types';
import { boxKey } from '@/core/licence/key-box';
import { payloadName, protectedFileName } from '@/core/policy/delivery';
import { envelope } from '@/core/wrapper/write';
import { ContentError } from '@/core/pages/errors';
import type {
  BeginLocalInput,
  FinishLocalInput,
  LocalBegun,
  LocalCover,
  LocalCoverInput,
} from '@/contracts/local-document';
import { insertUpload, type UploadRow } from '@/server/repositories/documents/upload-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import {
  insertProtected,
  ownUpload,
  versionOf,
} from '@/server/services/documents/protect-document';
import { writeHead } from '@/server/services/documents/write-head';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';

async function* alone(piece: Uint8Array): AsyncGenerator<Uint8Array> {
  yield await Promise.resolve(piece);
}

/**
 * Begins a document that is encrypted on its sender's machine: makes its key and the header of its
 * file, and gives both to the browser, the key encrypted to it. What is stored here is an age file of
 * nothing with that header and a nonce of its own, so that comments have a key and backups are whole.
 *
 * @throws ContentError `EMPTY_FILE`; ServiceError `TOO_LARGE`
 */
export async function beginLocal(
  deps: Deps,
  actor: StaffActor,
  input: BeginLocalInput,
): Promise<LocalBegun> {
  if (input.bytes === 0) throw new ContentError('EMPTY_FILE');
  if (input.bytes > MAX_DOCUMENT) throw new ServiceError('file-too-large');
  const version = newId('version', deps.random);
  const { fileKey, header, nonce, recoveryKey } = await writeHead(
    deps,
    version,
    input.recoverable ?? true,
  );
  const nothing = sealChunk(
    nodeChunkCipher(payloadKey(fileKey, nonce)),
    0,
    true,
    new Uint8Array(0),
  );
  await deps.blobs.writeAt(version, header.length + PAYLOAD_NONCE, alone(Buffer.concat(nothing)));
  const id = newId('upload', deps.random);
  const now = deps.clock.now();
  await deps.db.write((tx) => {
    const { wrapped, generation } = deps.vault.wrap(fileKey, version);
    return insertUpload(tx, {
      id,
      versionId: version,
      staffId: actor.id,
      isLocal: true,
      documentId: null,
      fileName: input.fileName,
      declaredBytes: input.bytes,
      receivedBytes: 0,
      blobKey: version,
      headerBytes: header.length,
      wrappedKey: wrapped,
      keyGeneration: generation,
      recoveryKey,
      // Nothing is known of its content, so it is the same as no other.
      contentMac: `local ${version}`,
      createdAt: now,
      updatedAt: now,
    });
  });
  return {
    id,
    version,
    header: base64.encode(header),
    box: await boxKey(fileKey, input.boxKey, version),
  };
}

async function ownLocal(
  db: Parameters<typeof ownUpload>[0],
  actor: StaffActor,
  id: UploadRow['id'],
): Promise<UploadRow> {
  const upload = await ownUpload(db, actor, id);
  if (!upload.isLocal) throw new ServiceError('not-a-local-upload');
  return upload;
}

/** What the browser puts around the age file: a cover that says whom to ask, and nothing of the document. */
export async function coverForLocal(
  deps: Deps,
  actor: StaffActor,
  { id, reference }: LocalCoverInput,
): Promise<LocalCover> {
  const upload = await ownLocal(deps.db.read, actor, id);
  const organisation = (await findOrganisation(deps.db.read))?.name ?? '';
  const inside = payloadName(reference);
  const cover = await deps.covers.draw(
    {
      organisation,
      sender: actor.name,
      senderAddress: actor.email,
      reference,
      title: null,
      sentTo: null,
      link: `${deps.publicUrl}/r`,
      language: null,
      createdAt: deps.clock.now(),
    },
    deps.random(16),
    inside,
  );
  const { head, tail } = envelope(
    cover,
    fileSize(upload.headerBytes, upload.declaredBytes),
    inside,
  );
  const name = protectedFileName({
    reference,
    title: null,
    organisation: `recipients of ${organisation}`,
  });
  return { head: base64.encode(head), tail: base64.encode(tail), name };
}

/**
 * Makes it a document, once its file lies on its sender's machine.
 *
 * @throws ServiceError `reference-taken`, `not-a-local-upload`
 */
export function protectLocal(
  deps: Deps,
  actor: StaffActor,
  input: FinishLocalInput,
): Promise<{ readonly id: DocumentId }> {
  // Not while it is cancelled, nor twice at once.
  return deps.turns.wholes(input.id, () => becomeLocal(deps, actor, input));
}

async function becomeLocal(
  deps: Deps,
  actor: StaffActor,
  input: FinishLocalInput,
): Promise<{ readonly id: DocumentId }> {
  const { blobKey, headerBytes } = await ownLocal(deps.db.read, actor, input.id);
  await deps.blobs.finish(blobKey, fileSize(headerBytes, 0));
  const id = newId('document', deps.random);
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    const upload = await ownLocal(tx, actor, input.id);
    // Only what is a PDF by itself is drawn on the reader's machine.
    const pages = pagesFrom(input.mediaType) === 'itself' ? input.pages : 0;
    const version = versionOf(
      upload,
      actor,
      id,
      1,
      { mediaType: input.mediaType, pages, pagesBytes: null },
      now,
    );
    await insertProtected(deps, tx, actor, {
      ...input,
      recoverable: upload.recoveryKey !== null,
      id,
      upload,
      version,
    });
  });
  return { id };
}
