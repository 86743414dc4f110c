import { DAY, type Moment } from '@/core/base/time';

/** What stands behind somebody's never having opened what they may open. */
export type Silence = 'silent' | 'tried-and-refused' | 'mail-bounced' | 'nothing-yet';

/** How long somebody may take before their silence means something. */
const FIRST_DAYS = 3 * DAY;

/** Why it was not opened, as far as the record tells; a bounced message explains silence before anything else does. */
export function silenceOf(
  facts: {
    readonly mail: 'waiting' | 'delivered' | 'failed' | null;
    readonly refusals: number;
    readonly openSince: Moment;
  },
  now: Moment,
): Silence {
  if (facts.refusals > 0) return 'tried-and-refused';
  if (facts.mail === 'failed') return 'mail-bounced';
  return facts.mail === 'waiting' || now - facts.openSince < FIRST_DAYS ? 'nothing-yet' : 'silent';
}
