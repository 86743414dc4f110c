import { AppError } from '@/core/base/errors';

/**
 * - `NOT_AGE`: the bytes do not begin like an age v1 file.
 * - `BAD_HEADER`: they do, and then break the grammar.
 * - `TOO_SHORT`: the header goes on beyond the bytes given.
 * - `DAMAGED`: a key, a MAC or a chunk does not verify.
 *
 * All but the first say the same one sentence: what is wrong with a file somebody harmed is not
 * theirs to learn. Programs tell them apart by the code; which check failed is in `cause` alone.
 */
export type AgeErrorCode = 'NOT_AGE' | 'BAD_HEADER' | 'TOO_SHORT' | 'DAMAGED';

const NEUTRAL = 'This file cannot be decrypted: it was altered or cut, or the key is not its own.';

/** An age file that is broken or cannot be opened. */
export class AgeError extends AppError<AgeErrorCode> {
  constructor(code: AgeErrorCode, detail?: string) {
    super(
      'AgeError',
      code,
      code === 'NOT_AGE' ? 'This is not an age file.' : NEUTRAL,
      detail === undefined ? undefined : { cause: detail },
    );
  }
}
