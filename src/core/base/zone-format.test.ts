import { expect, test } from 'vitest';
import { zoneFormat } from '@/core/base/zone-format';

const AT = Date.UTC(2026, 10, 29, 12);

test('each zone has a format of its own, made once', () => {
  const clock = zoneFormat({ hour: '2-digit', minute: '2-digit' });
  expect(clock('Europe/Oslo').format(AT)).toBe('13:00');
  expect(clock('Asia/Tokyo').format(AT)).toBe('21:00');
  expect(clock('Europe/Oslo')).toBe(clock('Europe/Oslo'));
  expect(() => clock('Nowhere/Here')).toThrow(RangeError);
});

test('formats of different kinds do not mix', () => {
  const day = zoneFormat({ dateStyle: 'medium' });
  const clock = zoneFormat({ hour: '2-digit', minute: '2-digit' });
  expect(day('UTC').format(AT)).toBe('29 Nov 2026');
  expect(clock('UTC').format(AT)).toBe('12:00');
});
