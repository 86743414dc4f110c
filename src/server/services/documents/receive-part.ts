import 'server-only';
import { CHUNK, PAYLOAD_NONCE, TAG } from '@/core/age/chunks';
import { isAppError } from '@/core/base/errors';
import type { UploadId } from '@/core/base/ids';
import { isCalledPdf, mediaTypeOf, type MediaType } from '@/core/content/media-types';
import { PART, type PartResult } from '@/contracts/document';
import { ContentError } from '@/core/pages/errors';
import type { Reading, Transaction } from '@/server/db/database';
import {
  advanceUpload,
  findUpload,
  noteSealing,
  type UploadRow,
} from '@/server/repositories/documents/upload-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { discardUpload } from '@/server/services/documents/discard-upload';
import { ServiceError } from '@/server/services/base/errors';
import { recordAlone } from '@/server/services/base/record';
import { payloadKeyOf } from '@/server/services/documents/sealed-source';

/** What one part takes in memory while it comes. */
export const PART_BYTES = PART;

/**
 * Takes one part whole and seals it to the disk. A part that is here already is answered as
 * received; one that was cut off on its way leaves the upload where it was. What was answered is on
 * the disk.
 *
 * @throws ServiceError `CONFLICT` with `receivedBytes` where it does not follow, or where other
 * bytes were sealed in its place before; `WRONG_LENGTH`; ContentError `NOT_OF_ITS_NAME`; StorageError
 * `DISK_FULL`; BusyError
 */
export async function receivePart(
  deps: Deps,
  actor: StaffActor,
  input: { readonly id: UploadId; readonly offset: number },
  body: AsyncIterable<Uint8Array>,
): Promise<PartResult> {
  // One part of an upload at a time, and few in all: each is held in memory until it is whole.
  return deps.turns.parts(input.id, () => takePart(deps, actor, input, body));
}

async function takePart(
  deps: Deps,
  actor: StaffActor,
  input: { readonly id: UploadId; readonly offset: number },
  body: AsyncIterable<Uint8Array>,
): Promise<PartResult> {
  const upload = await needUpload(deps.db.read, actor, input.id);
  if (upload.isLocal) throw new ServiceError('content-elsewhere');
  if (input.offset < upload.receivedBytes) return { receivedBytes: upload.receivedBytes };
  if (input.offset > upload.receivedBytes)
    throw new ServiceError('part-does-not-follow', {
      receivedBytes: upload.receivedBytes,
    });
  const expected = Math.min(PART, upload.declaredBytes - upload.receivedBytes);
  if (expected === 0) throw new ServiceError('file-received');
  // Cancelled where the rest could not be written down any more.
  if ((await deps.blobs.sizeOf(upload.blobKey)) === null) throw new ServiceError('upload-over');
  await deps.blobs.needRoom(expected);
  try {
    // Held in memory until it is whole: nothing is sealed of a part that is cut off.
    return await deps.turns.partBuffers(async (buffer) => {
      const part = buffer.subarray(0, expected);
      await fillPart(part, body);
      const mediaType = upload.mediaType ?? (await needMediaType(part, upload.fileName));
      return sealPart(deps, actor, { ...upload, mediaType }, part);
    });
  } catch (error) {
    // Content that cannot be taken in will not become better by trying again.
    if (isAppError(error) && error.name === 'ContentError') await discardUpload(deps, upload);
    throw error;
  }
}

async function needUpload(
  db: Reading | Transaction,
  actor: StaffActor,
  id: UploadId,
): Promise<UploadRow> {
  const upload = await findUpload(db, id, actor.id);
  if (upload === null) throw new ServiceError('upload-over');
  return upload;
}

/**
 * Notes which bytes are about to be sealed where. Under one key and nonce only these may ever be: a
 * machine that failed between sealing and answering is sent the same part again, and other bytes
 * are refused.
 *
 * @throws ServiceError `CONFLICT`
 */
async function claimPlace(
  deps: Deps,
  actor: StaffActor,
  { id, receivedBytes }: UploadRow,
  mac: string,
): Promise<void> {
  await deps.db.writeAside(async (tx) => {
    const now = await needUpload(tx, actor, id);
    if (now.receivedBytes !== receivedBytes)
      throw new ServiceError('part-does-not-follow', {
        receivedBytes: now.receivedBytes,
      });
    if (now.sealingFrom === receivedBytes && now.sealingMac !== mac)
      throw new ServiceError('file-changed', { receivedBytes });
    await noteSealing(tx, id, receivedBytes, mac);
  });
}

async function sealPart(
  deps: Deps,
  actor: StaffActor,
  upload: UploadRow,
  part: Uint8Array,
): Promise<PartResult> {
  const mac = deps.vault.macOf('upload part', part);
  await claimPlace(deps, actor, upload, mac);
  await recordAlone(deps, {
    action: 'key.unwrapped',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
    version: upload.versionId,
    details: { for: 'taking in', from: upload.receivedBytes },
  });
  const fileKey = deps.vault.unwrap(
    { wrapped: upload.wrappedKey, generation: upload.keyGeneration },
    upload.versionId,
  );
  const key = payloadKeyOf(
    deps,
    { blobKey: upload.blobKey, headerBytes: upload.headerBytes },
    fileKey,
  );
  const firstChunk = upload.receivedBytes / CHUNK;
  const receivedBytes = upload.receivedBytes + part.length;
  await deps.blobs.sealAt(
    upload.blobKey,
    upload.headerBytes + PAYLOAD_NONCE + firstChunk * (CHUNK + TAG),
    { key, first: firstChunk, ends: receivedBytes === upload.declaredBytes },
    whole(part),
  );
  const contentMac = deps.vault.mac('content', `${upload.contentMac} ${mac}`);
  await deps.db.writeAside((tx) =>
    advanceUpload(tx, { ...upload, receivedBytes, contentMac }, deps.clock.now()),
  );
  return { receivedBytes };
}

async function* whole(part: Uint8Array): AsyncGenerator<Uint8Array> {
  yield await Promise.resolve(part);
}

/**
 * Fills a part with what comes, which has to be as long. It is copied: anyone who reads from a file
 * uses the memory of its pieces again.
 */
async function fillPart(part: Uint8Array, source: AsyncIterable<Uint8Array>): Promise<void> {
  const wrong = (): ServiceError => new ServiceError('part-length');
  let seen = 0;
  for await (const bytes of source) {
    if (seen + bytes.length > part.length) throw wrong();
    part.set(bytes, seen);
    seen += bytes.length;
  }
  if (seen !== part.length) throw wrong();
}

/** Files of programs older than the kinds that are known, and such as were locked with a password ([MS-CFB], 2.2). */
const COMPOUND = [0xd0, 0xcf, 0x11, 0xe0];

/**
 * What kind of file begins so and is called so.
 *
 * @throws ContentError `NOT_A_PDF`, `NOT_OF_ITS_NAME`, saying what it is instead where that shows; `FILE_LOCKED`
 */
export async function needMediaType(head: Uint8Array, fileName: string): Promise<MediaType> {
  const mediaType = mediaTypeOf(head, fileName);
  if (mediaType !== null) return mediaType;
  if (COMPOUND.every((byte, at) => head[at] === byte)) throw new ContentError('FILE_LOCKED');
  // Loaded for the few files that are of no such kind, not at the start.
  const { fileTypeFromBuffer } = await import('file-type');
  const found = await fileTypeFromBuffer(head);
  throw new ContentError(
    isCalledPdf(fileName) ? 'NOT_A_PDF' : 'NOT_OF_ITS_NAME',
    found === undefined ? {} : { found: { ext: found.ext, mime: found.mime } },
  );
}
