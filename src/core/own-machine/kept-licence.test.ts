import fc from 'fast-check';
import { expect, test } from 'vitest';
import { HOUR, MINUTE } from '@/core/base/time';
import { timeWithoutService, type TakenAt } from '@/core/own-machine/kept-licence';

const NOW = 1_800_000_000_000;
const taken: TakenAt = {
  now: NOW,
  // The device is three hours behind.
  deviceNow: NOW - 3 * HOUR,
  lastSeen: NOW,
  offlineUntil: NOW + 24 * HOUR,
};
const there = (ms: number): number => taken.deviceNow + ms;

test('time goes on by the device’s clock, however wrong that is', () => {
  expect(timeWithoutService(taken, there(5 * HOUR))).toBe(NOW + 5 * HOUR);
});

test('it ends when the allowance does, not a moment later', () => {
  expect(timeWithoutService(taken, there(24 * HOUR - 1))).toBe(NOW + 24 * HOUR - 1);
  expect(() => timeWithoutService(taken, there(24 * HOUR))).toThrow(
    expect.objectContaining({ code: 'LICENCE_OVER' }),
  );
});

test('a clock that went back refuses; one that was set right by a minute does not', () => {
  const read = { ...taken, lastSeen: NOW + 20 * HOUR };
  expect(() => timeWithoutService(read, there(2 * HOUR))).toThrow(
    expect.objectContaining({ code: 'CLOCK_BACK' }),
  );
  expect(timeWithoutService(read, there(20 * HOUR - MINUTE))).toBe(NOW + 20 * HOUR);
});

test('whatever clocks show, nothing is read after the end, and time never goes back', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -48, max: 48 })), (hours) => {
      let lastSeen = taken.now;
      for (const hour of hours) {
        const before = lastSeen;
        try {
          lastSeen = timeWithoutService({ ...taken, lastSeen }, there(hour * HOUR));
        } catch {
          // Refused: nothing was read, and no time was seen.
        }
        expect(lastSeen).toBeGreaterThanOrEqual(before);
        expect(lastSeen).toBeLessThan(taken.offlineUntil);
      }
    }),
  );
});
