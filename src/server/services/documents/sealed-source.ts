import 'server-only';
import { PAYLOAD_NONCE, payloadKey, sealedSize } from '@/core/age/chunks';
import { AgeError } from '@/core/age/errors';
import { parseHeader, verifyHeader } from '@/core/age/header';
import { openStream } from '@/core/age/stream';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
import { openBlob } from '@/server/storage/open-blob';
import type { SealedSource } from '@/server/rendering/render-task';
import type { Deps } from '@/server/services/base/deps';

type Sealed = {
  readonly blobKey: string;
  readonly headerBytes: number;
  readonly plainBytes: number;
};

/** Reads the head of a stored file and derives the payload key. @throws AgeError `DAMAGED` */
export function payloadKeyOf(
  { blobs }: Pick<Deps, 'blobs'>,
  { blobKey, headerBytes }: Sealed,
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

/** What a worker thread needs to read a stored file. */
export function sealedSource(
  { blobs }: Pick<Deps, 'blobs'>,
  { blobKey, headerBytes, plainBytes, mediaType }: Sealed & Pick<SealedSource, 'mediaType'>,
  key: Uint8Array,
): SealedSource {
  return {
    mediaType,
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
