import 'server-only';
import { PAYLOAD_NONCE, payloadKey, sealedSize } from '@/core/age/chunks';
import { AgeError } from '@/core/age/errors';
import { parseHeader, verifyHeader } from '@/core/age/header';
import { openStream } from '@/core/age/stream';
import { pagesKey } from '@/core/content/blob-keys';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
import { openBlob } from '@/server/storage/open-blob';
import type { SealedSource } from '@/server/rendering/render-task';
import { ServiceError } from '@/server/services/base/errors';
import type { Deps } from '@/server/services/base/deps';

/** A sealed file in the store. */
export type Sealed = {
  readonly blobKey: string;
  readonly headerBytes: number;
  readonly plainBytes: number;
  /** Its content never came here: what is stored is of nothing. */
  readonly isLocal: boolean;
};

/** A version as it is stored: what came, and the pages that were made of it where it has none itself. */
export type StoredFiles = {
  readonly blobKey: string;
  readonly headerBytes: number;
  readonly bytes: number;
  readonly pagesBytes: number | null;
  readonly isLocal: boolean;
};

/** The file that came. */
export function sealedFile({ blobKey, headerBytes, bytes, isLocal }: StoredFiles): Sealed {
  return { blobKey, headerBytes, plainBytes: isLocal ? 0 : bytes, isLocal };
}

/**
 * What pages are drawn from, and what comments are sealed with: the file that came, or the pages
 * that were made of it. Both have the same file key and a nonce each.
 */
export function sealedPages(version: StoredFiles): Sealed {
  const { blobKey, headerBytes, pagesBytes } = version;
  return pagesBytes === null
    ? sealedFile(version)
    : { blobKey: pagesKey(blobKey), headerBytes, plainBytes: pagesBytes, isLocal: false };
}

/** Everything that is stored of a version. */
export function allSealed(version: StoredFiles): Sealed[] {
  return version.pagesBytes === null
    ? [sealedFile(version)]
    : [sealedFile(version), sealedPages(version)];
}

/** Reads the head of a stored file and derives the payload key. @throws AgeError `DAMAGED` */
export function payloadKeyOf(
  { blobs }: Pick<Deps, 'blobs'>,
  { blobKey, headerBytes }: Pick<Sealed, 'blobKey' | 'headerBytes'>,
  fileKey: Uint8Array,
): Uint8Array {
  const length = headerBytes + PAYLOAD_NONCE;
  const blob = openBlob(blobs.placeOf(blobKey));
  let head: Uint8Array;
  try {
    head = blob.read({ offset: 0, length });
  } finally {
    blob.close();
  }
  if (head.length !== length) throw new AgeError('DAMAGED', 'short file');
  const header = parseHeader(head);
  if (header.length !== headerBytes || !verifyHeader(header, fileKey))
    throw new AgeError('DAMAGED', 'header');
  return payloadKey(fileKey, head.subarray(headerBytes));
}

/** @throws ServiceError `content-elsewhere` where the content is on its sender's machine alone */
export function needHere({ isLocal }: Pick<StoredFiles, 'isLocal'>): void {
  if (isLocal) throw new ServiceError('content-elsewhere');
}

/**
 * What a worker thread needs to read a stored file.
 *
 * @throws ServiceError `content-elsewhere`
 */
export function sealedSource(
  { blobs }: Pick<Deps, 'blobs'>,
  sealed: Sealed,
  key: Uint8Array,
): SealedSource {
  needHere(sealed);
  const { blobKey, headerBytes, plainBytes } = sealed;
  return {
    place: blobs.placeOf(blobKey),
    start: headerBytes + PAYLOAD_NONCE,
    sealedBytes: sealedSize(plainBytes),
    key,
  };
}

/** The plain bytes of a stored file, decrypted while they are read. */
export async function* plainPieces(
  { blobs }: Pick<Deps, 'blobs'>,
  { blobKey, headerBytes, plainBytes }: Sealed,
  key: Uint8Array,
): AsyncGenerator<Uint8Array, void> {
  const range = { offset: headerBytes + PAYLOAD_NONCE, length: sealedSize(plainBytes) };
  yield* openStream(nodeChunkCipher(key), blobs.read(blobKey, range));
}
