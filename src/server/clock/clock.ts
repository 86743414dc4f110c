import type { Moment } from '@/core/base/time';

/** Where the time comes from. */
export type Clock = { readonly now: () => Moment };

export const systemClock: Clock = { now: () => Date.now() };

/** A clock that can be set, for the demo's story and for tests. */
export function settableClock(start: Moment): Clock & { readonly set: (moment: Moment) => void } {
  let moment = start;
  return {
    now: () => moment,
    set: (next) => {
      moment = next;
    },
  };
}
