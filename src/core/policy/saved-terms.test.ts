import { expect, test } from 'vitest';
import { DAY, HOUR } from '@/core/base/time';
import { termsAt } from '@/core/policy/saved-terms';

test('saved terms count their days from when they are used, and end on the hour', () => {
  const kept = { rights: ['read', 'print'], days: 7, prints: 2, watermark: [] } as const;
  const now = Date.UTC(2026, 10, 25, 9, 12);
  expect(termsAt(kept, now)).toEqual({
    rights: ['read', 'print'],
    from: null,
    until: now - 12 * 60_000 + HOUR + 7 * DAY,
    prints: 2,
  });
  expect(termsAt({ ...kept, days: null }, now).until).toBeNull();
});
