import { MINUTE, type Moment } from '@/core/base/time';
import type { Clock } from '@/server/clock/clock';

/**
 * A clock that never runs behind what is on the record already. `behind`: how far the machine's own
 * clock lags, in ms.
 */
export type SteadyClock = Clock & { readonly behind: () => number };

/**
 * Anyone who sets the machine's clock back must not let anybody in again whose time was over: the
 * later of the two counts, the machine's time or the latest that was ever seen.
 *
 * @param floor the time of the newest entry of the ledger
 */
export function createSteadyClock(base: () => Moment, floor: Moment): SteadyClock {
  let latest = floor;
  return {
    now: () => {
      latest = Math.max(latest, base());
      return latest;
    },
    behind: () => Math.max(0, latest - base()),
  };
}

/** A lag that is no more than two machines' clocks being a little apart. */
export const CLOCKS_APART = MINUTE;
