import type { Moment } from '@/core/base/time';
import type { Clock } from '@/server/clock/clock';

/** The real clock, put forward: exists on a demo's database alone. */
export type DemoClock = Clock & {
  readonly offset: () => number;
  readonly setOffset: (offset: number) => void;
};

export function createDemoClock(offset: number, base: () => Moment = Date.now): DemoClock {
  let ahead = offset;
  return {
    now: () => base() + ahead,
    offset: () => ahead,
    setOffset: (next) => {
      ahead = next;
    },
  };
}
