import 'server-only';
import { AppError } from '@/core/base/errors';
import { MINUTE, SECOND } from '@/core/base/time';

/** Why a use case could not be carried out. Refusals of access are values, not errors. */
export type ServiceErrorCode =
  | 'NOT_FOUND'
  | 'INVALID'
  | 'CONFLICT'
  | 'TOO_MANY'
  | 'NOT_SIGNED_IN'
  | 'NEEDS_CODE'
  | 'PROVE_AGAIN'
  | 'NOT_ALLOWED'
  | 'WRONG_ORIGIN'
  | 'TOO_LARGE'
  | 'WRONG_LENGTH'
  | 'MAIL_NOT_SET_UP'
  | 'REASON_NEEDED';

/** Too many tries; `wait` in ms until the next may be made. */
export function tooMany(wait: number): ServiceError {
  return new ServiceError(
    'TOO_MANY',
    `Too many tries. Wait ${String(Math.ceil(wait / MINUTE))} min and try again.`,
    { retryAfter: Math.ceil(wait / SECOND) },
  );
}

export class ServiceError extends AppError<ServiceErrorCode> {
  /** Facts a program needs to go on: how much of an upload is here, when to try again. */
  readonly data: Readonly<Record<string, number | string>>;

  constructor(
    code: ServiceErrorCode,
    message: string,
    data: Readonly<Record<string, number | string>> = {},
  ) {
    super('ServiceError', code, message);
    this.data = data;
  }
}
