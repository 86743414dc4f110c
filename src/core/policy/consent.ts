import { DAY, type Moment } from '@/core/base/time';

/** What a second administrator is asked to agree to, where the organisation wants two people for it. */
export type ConsentKind = 'destroy-keys' | 'one-person' | 'send' | 'lower-marking';

/** How long somebody has to have been an administrator before they count as a second person: nobody makes their own. */
export const SECOND_PERSON_AFTER = 3 * DAY;

/** From when on somebody counts as a second person. */
export function secondPersonFrom(administratorSince: Moment): Moment {
  return administratorSince + SECOND_PERSON_AFTER;
}
