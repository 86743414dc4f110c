import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';
import { MINUTE, SECOND } from '@/core/base/time';

/** Lets so many attempts through in a span of time. @returns how many ms to wait, or 0 where this one may go ahead */
type Limit = (key: string) => Promise<number>;

/** The limits on what strangers may try. */
export type Limits = { readonly codesByNetwork: Limit; readonly guessesByNetwork: Limit; readonly signIn: Limit; readonly passwordMails: Limit };

function limit(points: number, span: number): Limit {
  const limiter = new RateLimiterMemory({ points, duration: span / SECOND });
  return async (key) => {
    try {
      await limiter.consume(key);
      return 0;
    } catch (refused) {
      if (refused instanceof RateLimiterRes) return Math.max(SECOND, refused.msBeforeNext);
      throw refused;
    }
  };
}

export function createLimits(): Limits {
  return { codesByNetwork: limit(30, 15 * MINUTE), guessesByNetwork: limit(60, 15 * MINUTE), signIn: limit(10, 5 * MINUTE), passwordMails: limit(5, 15 * MINUTE) };
}
