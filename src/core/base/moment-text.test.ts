import { describe, expect, test } from 'vitest';
import { DAY, HOUR, MINUTE } from '@/core/base/time';
import { dayText, distanceText, momentText, zoneName } from '@/core/base/moment-text';

describe('moments in words', () => {
  test('stand in the zone that is asked for, months in three letters', () => {
    const moment = Date.UTC(2026, 11, 31, 23, 5);
    expect(momentText(moment, 'UTC')).toBe('31 Dec 2026 23:05');
    expect(momentText(moment, 'Europe/Oslo')).toBe('01 Jan 2027 00:05');
    expect(zoneName(moment, 'Europe/Oslo')).toBe('CET');
    expect(zoneName(Date.UTC(2026, 6, 1), 'Europe/Oslo')).toBe('CEST');
    expect(dayText('2026-11-05')).toBe('05 Nov 2026');
  });

  test.each([
    [3 * DAY, '3 days from now'],
    [-50 * HOUR, '2 days ago'],
    [5 * HOUR + 1, '5 hours from now'],
    [-61 * MINUTE, '61 minutes ago'],
    [MINUTE, '1 minute from now'],
    [0, '0 minutes from now'],
  ])('%i ms off is %s', (span, words) => {
    expect(distanceText(span, 0)).toBe(words);
  });
});
