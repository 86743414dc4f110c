import { AppError } from '@/core/base/errors';
import { inspectFile, type Inspected } from '@/core/wrapper/inspect';

/**
 * Looks into a file the browser was given, reading only the few bytes that are needed. @throws
 * WrapperError, AgeError
 */
export function inspectPicked(file: File): Promise<Inspected> {
  return inspectFile(
    async (offset, length) =>
      new Uint8Array(await file.slice(offset, offset + length).arrayBuffer()),
    file.size,
  );
}

/** The sentence for a file that could not be looked into. */
export function fileProblem(error: unknown): string {
  return error instanceof AppError ? error.message : 'This file could not be read.';
}
