import { MINUTE, type Moment } from '@/core/base/time';
import { OwnMachineError } from '@/core/own-machine/errors';

/** When a device took its licence: the service's clock and its own, and the latest time seen since. */
export type TakenAt = {
  /** By the service's clock. */
  readonly now: Moment;
  /** By the device's own clock, at the same moment. */
  readonly deviceNow: Moment;
  /** The latest moment seen on the device since, by the service's clock. */
  readonly lastSeen: Moment;
  /** Until when it is read without asking, by the service's clock. */
  readonly offlineUntil: Moment;
};

/** Clocks are set right by so much without anybody's doing. */
const SET_RIGHT = 2 * MINUTE;

/**
 * What time it is by the service's clock, as far as a device without a connection can tell.
 *
 * @throws OwnMachineError `CLOCK_BACK` where its clock shows less than it did before, `LICENCE_OVER`
 * where the time without asking has ended
 */
export function timeWithoutService(taken: TakenAt, deviceNow: Moment): Moment {
  const now = deviceNow + (taken.now - taken.deviceNow);
  const latest = Math.max(taken.now, taken.lastSeen);
  if (now < latest - SET_RIGHT) throw new OwnMachineError('CLOCK_BACK');
  const settled = Math.max(now, latest);
  if (settled >= taken.offlineUntil) throw new OwnMachineError('LICENCE_OVER');
  return settled;
}
