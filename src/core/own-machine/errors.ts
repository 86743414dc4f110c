import { AppError } from '@/core/base/errors';

/**
 * - `ANOTHER_VERSION`: the file holds another version than the licence is for.
 * - `LICENCE_OVER`: it may not be read any longer without asking again.
 * - `CLOCK_BACK`: the clock shows an earlier time than it did before.
 * - `WITHHELD`: the licence does not give this.
 */
export type OwnMachineErrorCode = 'ANOTHER_VERSION' | 'LICENCE_OVER' | 'CLOCK_BACK' | 'WITHHELD';

const sentences: Record<OwnMachineErrorCode, string> = {
  ANOTHER_VERSION: 'This file holds another version of the document.',
  LICENCE_OVER: 'The time for reading this is over.',
  CLOCK_BACK: 'The clock of this machine was set back.',
  WITHHELD: 'This was not allowed.',
};

/** A document that cannot be read on the person's own machine, or not any longer. */
export class OwnMachineError extends AppError<OwnMachineErrorCode> {
  constructor(code: OwnMachineErrorCode, options?: { readonly cause?: unknown }) {
    super('OwnMachineError', code, sentences[code], options);
  }
}
