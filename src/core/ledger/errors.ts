import { AppError } from '@/core/base/errors';

export type LedgerErrorCode = 'NOT_CANONICAL' | 'BAD_CHECKPOINT' | 'BAD_STATEMENT';

/** A record that cannot be written in canonical form, or a checkpoint or statement that cannot be trusted. */
export class LedgerError extends AppError<LedgerErrorCode> {
  constructor(code: LedgerErrorCode, message: string) {
    super('LedgerError', code, message);
  }
}
