import { AppError } from '@/core/base/errors';

export type StorageErrorCode = 'BLOB_INCOMPLETE' | 'DISK_FULL';

/** What a store of blobs cannot do. */
export class StorageError extends AppError<StorageErrorCode> {
  constructor(code: StorageErrorCode, message: string, cause?: unknown) {
    super('StorageError', code, message, { cause });
  }
}

export const notWhole = (): StorageError =>
  new StorageError('BLOB_INCOMPLETE', 'The stored file is not whole.');

export const noRoom = (cause?: unknown): StorageError =>
  new StorageError('DISK_FULL', 'There is no room left on the server to store this file.', cause);
