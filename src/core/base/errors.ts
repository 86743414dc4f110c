/** Stands on every error of ours. A class will not do to know one: a bundle may hold the same class twice. */
const OURS = Symbol.for('embargo.error');

/**
 * The base of every error this product throws on purpose.
 *
 * `code` is from a closed union of the area that throws; callers branch on it, never on the
 * message. The message is a sentence for the person who will read it and holds no secret.
 */
export class AppError<Code extends string = string> extends Error {
  override readonly name: string;
  readonly code: Code;
  readonly [OURS] = true;

  constructor(area: string, code: Code, message: string, options?: { readonly cause?: unknown }) {
    super(message, options);
    this.name = area;
    this.code = code;
  }
}

/** Whether this was thrown on purpose, by whichever copy of our code. */
export function isAppError(error: unknown): error is AppError {
  return error instanceof Error && OURS in error;
}

/** Whether it is one of ours with one of these codes. */
export function hasCode(error: unknown, ...codes: readonly string[]): error is AppError {
  return isAppError(error) && codes.includes(error.code);
}
