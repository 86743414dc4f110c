import { AppError } from '@/core/base/errors';

export type LedgerErrorCode = 'NOT_CANONICAL' | 'BAD_CHECKPOINT';

/** A record that cannot be written in canonical form, or a checkpoint that cannot be read. */
export class LedgerError extends AppError<LedgerErrorCode> {
  constructor(code: LedgerErrorCode, message: string) {
    super('LedgerError', code, message);
  }
}
