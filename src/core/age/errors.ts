import { AppError } from '@/core/base/errors';

/**
 * - `NOT_AGE`: the bytes do not begin like an age v1 file.
 * - `BAD_HEADER`: they do, and then break the grammar.
 * - `TOO_SHORT`: the header goes on beyond the bytes given.
 * - `DAMAGED`: a key, a MAC or a chunk does not verify. Deliberately neutral: which one is in `cause` alone.
 */
export type AgeErrorCode = 'NOT_AGE' | 'BAD_HEADER' | 'TOO_SHORT' | 'DAMAGED';

const sentences: Record<AgeErrorCode, string> = {
  NOT_AGE: 'This is not an age file.',
  BAD_HEADER: 'The header of this age file is malformed.',
  TOO_SHORT: 'The header of this age file is cut short.',
  DAMAGED: 'This file cannot be decrypted: it was altered or cut, or the key is not its own.',
};

/** An age file that is broken or cannot be opened. */
export class AgeError extends AppError<AgeErrorCode> {
  constructor(code: AgeErrorCode, detail?: string) {
    super('AgeError', code, sentences[code], detail === undefined ? undefined : { cause: detail });
  }
}
