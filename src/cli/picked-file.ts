import { open, type FileHandle } from 'node:fs/promises';
import { PAYLOAD_NONCE, payloadKey } from '@/core/age/chunks';
import { AgeError } from '@/core/age/errors';
import { unwrapFileKey } from '@/core/age/recipients';
import { AppError } from '@/core/base/errors';
import { inspectFile, type Inspected } from '@/core/wrapper/inspect';
import type { Stretch } from '@/server/storage/sealed-files';

/** A file named on the call that is not there, or may not be read. */
class InputError extends AppError<'NO_FILE'> {
  constructor(path: string) {
    super('InputError', 'NO_FILE', `There is no file ${path}, or it may not be read.`);
  }
}

/** Opens a file for reading, hands it over, closes it. @throws InputError */
export async function withFile<T>(
  path: string,
  use: (file: FileHandle, size: number) => Promise<T>,
): Promise<T> {
  const file = await open(path, 'r').catch(() => {
    throw new InputError(path);
  });
  try {
    const stats = await file.stat();
    if (!stats.isFile()) throw new InputError(path);
    return await use(file, stats.size);
  } finally {
    await file.close();
  }
}

/** Looks into an open file. @throws WrapperError, AgeError */
export function inspectOpen(file: FileHandle, size: number): Promise<Inspected> {
  return inspectFile(async (offset, length) => {
    const bytes = new Uint8Array(Math.min(length, Math.max(0, size - offset)));
    const { bytesRead } = await file.read(bytes, 0, bytes.length, offset);
    return bytes.subarray(0, bytesRead);
  }, size);
}

/**
 * The chunks of the age file in an open file, and the payload key that opens them, by this private key.
 * @throws AgeError `DAMAGED`
 */
export async function unlock(
  file: FileHandle,
  { header, offset, length }: Inspected,
  identity: string,
): Promise<{ readonly sealed: Stretch; readonly key: Uint8Array }> {
  const fileKey = await unwrapFileKey(header, identity);
  const nonce = new Uint8Array(PAYLOAD_NONCE);
  const start = header.length + PAYLOAD_NONCE;
  if ((await file.read(nonce, 0, nonce.length, offset + header.length)).bytesRead !== nonce.length)
    throw new AgeError('DAMAGED', 'no nonce');
  return {
    sealed: { file, offset: offset + start, length: length - start },
    key: payloadKey(fileKey, nonce),
  };
}
