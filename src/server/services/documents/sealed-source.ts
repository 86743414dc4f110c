import 'server-only';
import { closeSync, createReadStream, openSync, readSync } from 'node:fs';
import { PAYLOAD_NONCE, payloadKey, sealedSize } from '@/core/age/chunks';
import { AgeError } from '@/core/age/errors';
import { parseHeader, verifyHeader } from '@/core/age/header';
import { openStream } from '@/core/age/stream';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
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
  const head = new Uint8Array(headerBytes + PAYLOAD_NONCE);
  const file = openSync(blobs.pathOf(blobKey), 'r');
  try {
    if (readSync(file, head, 0, head.length, 0) !== head.length)
      throw new AgeError('DAMAGED', 'short file');
  } finally {
    closeSync(file);
  }
  const header = parseHeader(head);
  if (header.length !== headerBytes || !verifyHeader(header, fileKey))
    throw new AgeError('DAMAGED', 'header');
  return payloadKey(fileKey, head.subarray(headerBytes));
}

/** What a worker thread needs to read a stored file. */
export function sealedSource(
  { blobs }: Pick<Deps, 'blobs'>,
  { blobKey, headerBytes, plainBytes }: Sealed,
  key: Uint8Array,
): SealedSource {
  return {
    path: blobs.pathOf(blobKey),
    start: headerBytes + PAYLOAD_NONCE,
    sealedBytes: sealedSize(plainBytes),
    key,
  };
}

/** The plain bytes of a stored file, decrypted while they are read. */
export async function* plainPieces({
  path,
  start,
  sealedBytes,
  key,
}: SealedSource): AsyncGenerator<Uint8Array, void> {
  yield* openStream(
    nodeChunkCipher(key),
    createReadStream(path, { start, end: start + sealedBytes - 1 }),
  );
}
