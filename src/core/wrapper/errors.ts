import { AppError } from '@/core/base/errors';

/**
 * - `NOT_PROTECTED`: nothing here says that this is a protected file.
 * - `NEWER`: it is one, in a version of the format that this program does not know.
 * - `DAMAGED`: it is one, and is not whole, or was written anew by another program.
 */
export type WrapperErrorCode = 'NOT_PROTECTED' | 'NEWER' | 'DAMAGED';

const sentences: Record<WrapperErrorCode, string> = {
  NOT_PROTECTED: 'This is not a protected file.',
  NEWER: 'This protected file was made by a newer version of Embargo than this one.',
  DAMAGED:
    'This protected file was changed after it was made: it was cut, altered or saved again by ' +
    'another program. Ask for it again.',
};

/** A file that is no protected file, or is a broken one. */
export class WrapperError extends AppError<WrapperErrorCode> {
  constructor(code: WrapperErrorCode, detail?: string) {
    super(
      'WrapperError',
      code,
      sentences[code],
      detail === undefined ? undefined : { cause: detail },
    );
  }
}
