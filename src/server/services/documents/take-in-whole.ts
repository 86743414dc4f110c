import 'server-only';
import { fileSize, PAYLOAD_NONCE } from '@/core/age/chunks';
import type { VersionId } from '@/core/base/ids';
import { pagesKey } from '@/core/content/blob-keys';
import type { MediaType } from '@/core/content/media-types';
import { PART } from '@/contracts/document';
import { ContentError } from '@/core/pages/errors';
import type { Deps } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { needMediaType } from '@/server/services/documents/receive-part';
import { writeHead } from '@/server/services/documents/write-head';
import { payloadKeyOf } from '@/server/services/documents/sealed-source';
import { showFile } from '@/server/services/documents/show-file';

/** A file that comes in one stream. */
type Coming = {
  readonly versionId: VersionId;
  readonly fileName: string;
  readonly bytes: number;
  readonly body: AsyncIterable<Uint8Array>;
  /** Whether the organisation's recovery key opens it, too. */
  readonly recoverable: boolean;
  /** Whom looking into it is counted under. */
  readonly who: string;
};

/** A file that lies sealed in the store, as a version has it. */
export type TakenIn = {
  readonly id: VersionId;
  readonly mediaType: MediaType;
  readonly pages: number;
  readonly pagesBytes: number | null;
  readonly bytes: number;
  readonly contentMac: string;
  readonly blobKey: string;
  readonly headerBytes: number;
  readonly wrappedKey: Buffer;
  readonly keyGeneration: number;
  readonly recoveryKey: string | null;
};

/** Parts as uploads are taken in by, so that the same file has the same hash however it came. */
async function* inParts(
  body: AsyncIterable<Uint8Array>,
  bytes: number,
  onPart: (part: Uint8Array) => Promise<void>,
): AsyncGenerator<Uint8Array> {
  let part = new Uint8Array(Math.min(PART, bytes));
  let [filled, seen] = [0, 0];
  for await (const piece of body) {
    if (seen + piece.length > bytes) throw new ServiceError('file-cut-off');
    for (let from = 0; from < piece.length;) {
      const some = piece.subarray(from, from + part.length - filled);
      part.set(some, filled);
      [from, filled, seen] = [from + some.length, filled + some.length, seen + some.length];
      if (filled < part.length) continue;
      await onPart(part);
      yield part;
      part = new Uint8Array(Math.min(PART, bytes - seen));
      filled = 0;
    }
  }
  if (seen !== bytes) throw new ServiceError('file-cut-off');
}

async function seal(deps: Deps, coming: Coming): Promise<TakenIn> {
  const { versionId, fileName, bytes, body, recoverable, who } = coming;
  const { fileKey, headerBytes, recoveryKey } = await writeHead(deps, versionId, recoverable);
  const place = { blobKey: versionId, headerBytes };
  const key = payloadKeyOf(deps, place, fileKey);
  let contentMac = '';
  const kinds: MediaType[] = [];
  const parts = inParts(body, bytes, async (part) => {
    // What it is shows at its beginning, before anything of it is kept.
    if (contentMac === '') kinds.push(await needMediaType(part, fileName));
    contentMac = deps.vault.mac(
      'content',
      `${contentMac} ${deps.vault.macOf('upload part', part)}`,
    );
  });
  const payload = { key, first: 0, ends: true };
  await deps.blobs.sealAt(versionId, headerBytes + PAYLOAD_NONCE, payload, parts);
  const [mediaType = await needMediaType(new Uint8Array(0), fileName)] = kinds;
  const files = { blobKey: versionId, headerBytes, bytes, pagesBytes: null, isLocal: false };
  const { pages, pagesBytes } = await showFile(deps, files, mediaType, fileKey, { who });
  await deps.blobs.finish(versionId, fileSize(headerBytes, bytes));
  const { wrapped, generation } = deps.vault.wrap(fileKey, versionId);
  return {
    id: versionId,
    mediaType,
    pages,
    pagesBytes,
    bytes,
    contentMac,
    blobKey: versionId,
    headerBytes,
    wrappedKey: wrapped,
    keyGeneration: generation,
    recoveryKey,
  };
}

/**
 * Takes a file in that comes in one stream, and gives it to `use`; whatever goes wrong on the way or
 * there, nothing of it stays.
 *
 * @throws ContentError; ServiceError `WRONG_LENGTH`; StorageError `DISK_FULL`
 */
export async function takeInWhole<T>(
  deps: Deps,
  coming: Coming,
  use: (taken: TakenIn) => Promise<T>,
): Promise<T> {
  if (coming.bytes === 0) throw new ContentError('EMPTY_FILE');
  await deps.blobs.needRoom(coming.bytes);
  try {
    return await use(await seal(deps, coming));
  } catch (error) {
    await deps.blobs.remove(coming.versionId);
    await deps.blobs.remove(pagesKey(coming.versionId));
    throw error;
  }
}
