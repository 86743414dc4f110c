import type { RefusalReason, Withheld } from '@/core/policy/decide';

/**
 * What a request inside an open can be refused for; `open-again`: nothing is refused, this open is
 * over and another one may follow.
 */
export type ReadingRefusal = RefusalReason | Withheld | 'open-again';

export type OnRefused = (reason: ReadingRefusal, at: number | null) => void;

/** A refusal met while reading. */
export class RefusedError extends Error {
  override readonly name = 'RefusedError';

  constructor(
    readonly reason: ReadingRefusal,
    /** When access ended, where the reason is about that. */ readonly at: number | null,
  ) {
    super(reason);
  }
}
