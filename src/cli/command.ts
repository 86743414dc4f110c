import type { ParseArgsConfig } from 'node:util';
import { AppError } from '@/core/base/errors';
import type { Config } from '@/server/config/env';

/** What a command hands back: 0 well, 1 something is wrong with what was looked at, 2 the call was wrong. */
export type ExitCode = 0 | 1 | 2;

type Options = NonNullable<ParseArgsConfig['options']>;
export type Call = {
  readonly files: readonly string[];
  /** Text of an option given once. */
  readonly text: (name: string) => string | undefined;
  /** Texts of an option given several times. */
  readonly texts: (name: string) => readonly string[];
  readonly flag: (name: string) => boolean;
  /** Read when it is asked for: some commands need no settings at all. */
  readonly config: () => Config;
  /** Shows how far a long job is, where somebody watches: `done` of `all`. */
  readonly progress: (done: number, all: number, words: string) => void;
};

/** What came of it: for people as text, for programs as one JSON value. */
type Outcome = { readonly code: ExitCode; readonly text: string; readonly json: unknown };

export type Command = {
  /** The words that call it: `ledger verify`. */
  readonly name: string;
  /** What stands behind them. */
  readonly usage: string;
  readonly summary: string;
  /** A line an option, and what else is worth knowing. */
  readonly help: string;
  readonly options: Options;
  readonly run: (call: Call) => Promise<Outcome>;
};

/** The call cannot be understood; the message says what is missing. */
export class UsageError extends AppError<'USAGE'> {
  constructor(message: string) {
    super('UsageError', 'USAGE', message);
  }
}

type Checked<T> =
  | { readonly success: true; readonly data: T }
  | {
      readonly success: false;
      readonly error: { readonly issues: readonly { readonly message: string }[] };
    };

/** What a schema made of the call. @throws UsageError with what it found wrong */
export function checked<T>(result: Checked<T>): T {
  if (result.success) return result.data;
  throw new UsageError(
    `Please check: ${[...new Set(result.error.issues.map(({ message }) => message))].join('; ')}.`,
  );
}

/** An option that has to be there. @throws UsageError */
export function needed(call: Call, name: string, what: string): string {
  const found = call.text(name);
  if (found === undefined) throw new UsageError(`--${name} is missing: ${what}.`);
  return found;
}
