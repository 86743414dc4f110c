import { isIPv6 } from 'node:net';
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';
import { HOUR, MINUTE, SECOND } from '@/core/base/time';

/** Lets so many attempts through in a span of time. @returns how many ms to wait, or 0 where this one may go ahead */
type Limit = (key: string) => Promise<number>;

/**
 * The limits on what may be tried. Each counts what the asker can be held to, their network,
 * browser or device, and never whom they name: a limit on somebody's address would be a way to lock
 * them out.
 */
export type Limits = {
  readonly codesByNetwork: Limit;
  /** From wherever they are asked for: what a mail server can bear. */
  readonly codesInAll: Limit;
  /** By network and address: enough for a slow mailbox, too few to flood one. */
  readonly codesToOne: Limit;
  /** By network and link: addresses that a link is tried with, whether they were addressed or not. */
  readonly addressesByLink: (key: string, address: string) => Promise<number>;
  readonly guessesByNetwork: Limit;
  readonly signInByNetwork: Limit;
  /** By network and address. */
  readonly signIn: Limit;
  readonly passwordMails: Limit;
  /** By person. */
  readonly opens: Limit;
  readonly prints: Limit;
  /** By person: copied text that their browser tells of. */
  readonly copies: Limit;
  /** By person: a search goes through a long document in several requests. */
  readonly searches: Limit;
  readonly comments: Limit;
  /** By person: changed files that are sent back. */
  readonly revisions: Limit;
  /** By person: how long pages were in view, which their browser tells of four times a minute. */
  readonly readings: Limit;
};

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

/** Counts different values under a key, not tries. */
function distinct(values: number, span: number): (key: string, value: string) => Promise<number> {
  const seen = limit(1, span);
  const fresh = limit(values, span);
  return async (key, value) => ((await seen(`${key} ${value}`)) > 0 ? 0 : fresh(key));
}

export function createLimits(): Limits {
  return {
    codesByNetwork: limit(30, 15 * MINUTE),
    codesInAll: limit(3_000, 15 * MINUTE),
    codesToOne: limit(5, 15 * MINUTE),
    addressesByLink: distinct(8, 24 * HOUR),
    guessesByNetwork: limit(60, 15 * MINUTE),
    signInByNetwork: limit(40, 5 * MINUTE),
    signIn: limit(10, 5 * MINUTE),
    passwordMails: limit(5, 15 * MINUTE),
    opens: limit(120, 10 * MINUTE),
    prints: limit(60, 10 * MINUTE),
    copies: limit(120, 10 * MINUTE),
    searches: limit(240, 10 * MINUTE),
    comments: limit(120, 10 * MINUTE),
    revisions: limit(10, HOUR),
    readings: limit(400, 10 * MINUTE),
  };
}

/**
 * What a network address is counted under: one subscriber holds a whole /64 of IPv6 (RFC 6177), so
 * its addresses count as one.
 */
export function networkKey(network: string): string {
  if (!isIPv6(network)) return network;
  const [head = '', tail = ''] = network.split('%')[0]?.split('::') ?? [];
  const front = head === '' ? [] : head.split(':');
  const back = tail === '' ? [] : tail.split(':');
  const groups = network.includes('::')
    ? [...front, ...Array<string>(Math.max(0, 8 - front.length - back.length)).fill('0'), ...back]
    : front;
  return groups
    .slice(0, 4)
    .map((group) => Number.parseInt(group, 16).toString(16))
    .join(':');
}
