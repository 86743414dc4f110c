/**
 * The base of every error this product throws on purpose.
 *
 * `code` is from a closed union of the area that throws; callers branch on it, never on the
 * message. The message is a sentence for the person who will read it and holds no secret.
 */
export class AppError<Code extends string = string> extends Error {
  override readonly name: string;
  readonly code: Code;

  constructor(area: string, code: Code, message: string, options?: { readonly cause?: unknown }) {
    super(message, options);
    this.name = area;
    this.code = code;
  }
}
