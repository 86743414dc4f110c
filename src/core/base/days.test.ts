import { describe, expect, test } from 'vitest';
import { dayAfter, dayBegins } from '@/core/base/days';

describe('days', () => {
  test.each([
    ['2026-11-25', '2026-11-26'],
    ['2026-12-31', '2027-01-01'],
    ['2028-02-28', '2028-02-29'],
  ])('after %s comes %s', (day, next) => {
    expect(dayAfter(day)).toBe(next);
  });

  test.each([
    ['2026-11-25', 'UTC', '2026-11-25T00:00:00Z'],
    ['2026-11-25', 'Europe/Oslo', '2026-11-24T23:00:00Z'],
    ['2026-03-29', 'Europe/Oslo', '2026-03-28T23:00:00Z'], // clocks go forward at 2 o'clock
    ['2026-03-30', 'Europe/Oslo', '2026-03-29T22:00:00Z'],
    ['2026-10-25', 'Europe/Oslo', '2026-10-24T22:00:00Z'], // and back at 3
    ['2026-10-26', 'Europe/Oslo', '2026-10-25T23:00:00Z'],
    ['2026-06-01', 'America/St_Johns', '2026-06-01T02:30:00Z'],
    ['2026-09-06', 'America/Santiago', '2026-09-06T04:00:00Z'], // midnight is skipped: the day begins at 1 o'clock
    ['2026-01-01', 'Pacific/Kiritimati', '2025-12-31T10:00:00Z'],
  ])('%s begins in %s at %s', (day, zone, moment) => {
    expect(new Date(dayBegins(day, zone)).toISOString()).toBe(new Date(moment).toISOString());
  });
});
