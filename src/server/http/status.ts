import 'server-only';
import type { AgeErrorCode } from '@/core/age/errors';
import type { LedgerErrorCode } from '@/core/ledger/errors';
import type { ContentErrorCode } from '@/core/pages/errors';
import type { AlreadyDone } from '@/core/base/act';
import type { BusyError } from '@/server/limits/fair-queue';
import type { ProblemKind } from '@/contracts/problems';
import type { StorageErrorCode } from '@/server/storage/storage-error';

type ErrorCode =
  | AgeErrorCode
  | LedgerErrorCode
  | ContentErrorCode
  | ProblemKind
  | StorageErrorCode
  | BusyError['code']
  | AlreadyDone['code'];

/** The HTTP status of every error a caller may be told about: a forgotten code does not compile. */
const STATUS: Record<ErrorCode, number> = {
  NOT_AGE: 422,
  BAD_HEADER: 422,
  TOO_SHORT: 422,
  DAMAGED: 422,
  NOT_CANONICAL: 422,
  BAD_CHECKPOINT: 500,
  BAD_STATEMENT: 422,
  EMPTY_FILE: 422,
  NOT_A_PDF: 422,
  NOT_OF_ITS_NAME: 422,
  FILE_DAMAGED: 422,
  FILE_LOCKED: 422,
  FILE_TOO_LONG: 422,
  FILE_UNPACKS_TOO_FAR: 422,
  FILE_TOO_DEMANDING: 422,
  PICTURE_TOO_LARGE: 422,
  PROTECTED_ALREADY: 422,
  PDF_DAMAGED: 422,
  PDF_LOCKED: 422,
  PDF_TOO_DEMANDING: 422,
  PDF_TOO_MANY_PAGES: 422,
  PDF_UNPACKS_TOO_FAR: 422,
  CONTENT_DAMAGED: 422,
  NO_SUCH_PAGE: 404,
  NOT_FOUND: 404,
  INVALID: 422,
  CONFLICT: 409,
  TOO_MANY: 429,
  NOT_SIGNED_IN: 401,
  NEEDS_CODE: 422,
  PROVE_AGAIN: 403,
  NOT_ALLOWED: 403,
  WRONG_ORIGIN: 403,
  TOO_LARGE: 413,
  WRONG_LENGTH: 400,
  MAIL_NOT_SET_UP: 503,
  REASON_NEEDED: 422,
  NOTICE_DUE: 409,
  BUSY: 503,
  DONE_BEFORE: 409,
  BLOB_INCOMPLETE: 500,
  DISK_FULL: 507,
};

/** The status for a code, or `null` for one that no caller is told about. */
export function statusOf(code: string): number | null {
  return code in STATUS ? STATUS[code as ErrorCode] : null;
}
