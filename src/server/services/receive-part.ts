import 'server-only';
import { fileTypeFromBuffer } from 'file-type';
import { CHUNK, PAYLOAD_NONCE, TAG } from '@/core/age/chunks';
import { sealStream } from '@/core/age/stream';
import { concatBytes } from '@/core/base/bytes';
import { isAppError } from '@/core/base/errors';
import type { UploadId } from '@/core/base/ids';
import { PART, type PartResult } from '@/contracts/document';
import { ContentError } from '@/server/rendering/errors';
import { advanceUpload, findUpload, type UploadRow } from '@/server/repositories/document-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { discardUpload } from '@/server/services/discard-upload';
import { ServiceError } from '@/server/services/errors';
import { recordAlone } from '@/server/services/record';
import { payloadKeyOf } from '@/server/services/sealed-source';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';

/** Uploads with a part on its way in this process: a second one for the same upload waits its turn by being refused. */
const busy = new Set<UploadId>();

/** PDFium and others accept a PDF whose header comes within its first kilobyte (ISO 32000-2 annex). */
const HEADER_WITHIN = 1024;

/**
 * Takes one part and seals it on its way to the disk. A part that is here already is answered as
 * received; one that was cut off leaves the upload where it was.
 *
 * @throws ServiceError `CONFLICT` with `receivedBytes` where it does not follow, `WRONG_LENGTH`; ContentError `NOT_A_PDF`
 */
export async function receivePart(deps: Deps, actor: StaffActor, input: { readonly id: UploadId; readonly offset: number }, body: AsyncIterable<Uint8Array>): Promise<PartResult> {
  const upload = await findUpload(deps.db.read, input.id, actor.id);
  if (upload === null) throw new ServiceError('NOT_FOUND', 'This upload is over. Choose the file again.');
  if (input.offset < upload.receivedBytes) return { receivedBytes: upload.receivedBytes };
  if (input.offset > upload.receivedBytes || busy.has(upload.id)) throw new ServiceError('CONFLICT', 'This part does not follow what was received.', { receivedBytes: upload.receivedBytes });
  busy.add(upload.id);
  try {
    return await sealPart(deps, actor, upload, body);
  } catch (error) {
    // Content that cannot be taken in will not become better by trying again.
    if (isAppError(error) && error.name === 'ContentError') await discardUpload(deps, upload);
    throw error;
  } finally {
    busy.delete(upload.id);
  }
}

async function sealPart(deps: Deps, actor: StaffActor, upload: UploadRow, body: AsyncIterable<Uint8Array>): Promise<PartResult> {
  const expected = Math.min(PART, upload.declaredBytes - upload.receivedBytes);
  if (expected === 0) throw new ServiceError('WRONG_LENGTH', 'The whole file was already received.');
  await recordAlone(deps, { action: 'key.unwrapped', outcome: 'done', actor: { kind: 'staff', id: actor.id }, occurredAt: deps.clock.now(), version: upload.versionId, details: { for: 'taking in', from: upload.receivedBytes } });
  const fileKey = deps.vault.unwrap({ wrapped: upload.wrappedKey, generation: upload.keyGeneration }, upload.versionId);
  const key = payloadKeyOf(deps, { blobKey: upload.blobKey, headerBytes: upload.headerBytes, plainBytes: 0 }, fileKey);
  const firstChunk = upload.receivedBytes / CHUNK;
  const receivedBytes = upload.receivedBytes + expected;
  const checked = exactly(expected, upload.receivedBytes === 0 ? onlyPdf(body) : body);
  const sealed = sealStream(nodeChunkCipher(key), checked, firstChunk, receivedBytes === upload.declaredBytes);
  await deps.blobs.writeAt(upload.blobKey, upload.headerBytes + PAYLOAD_NONCE + firstChunk * (CHUNK + TAG), sealed);
  await deps.db.write((tx) => advanceUpload(tx, upload.id, receivedBytes, deps.clock.now()));
  return { receivedBytes };
}

/** Lets exactly `length` bytes through. */
async function* exactly(length: number, source: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
  let seen = 0;
  for await (const bytes of source) {
    seen += bytes.length;
    if (seen > length) break;
    yield bytes;
  }
  if (seen !== length) throw new ServiceError('WRONG_LENGTH', 'This part is not as long as was announced.');
}

/** Stops a stream whose first bytes are no PDF, saying what they are instead where that shows. */
async function* onlyPdf(source: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
  let head: Uint8Array | null = new Uint8Array(0);
  for await (const bytes of source) {
    if (head === null) {
      yield bytes;
      continue;
    }
    head = concatBytes(head, bytes);
    if (head.length < HEADER_WITHIN) continue;
    await checkHead(head);
    yield head;
    head = null;
  }
  if (head !== null) {
    await checkHead(head);
    yield head;
  }
}

async function checkHead(head: Uint8Array): Promise<void> {
  if (Buffer.from(head.subarray(0, HEADER_WITHIN)).includes('%PDF-')) return;
  const found = await fileTypeFromBuffer(head);
  throw new ContentError('NOT_A_PDF', found === undefined ? {} : { sentence: `This file is not a PDF, whatever its name says: its content is ${found.ext.toUpperCase()} (${found.mime}).` });
}
