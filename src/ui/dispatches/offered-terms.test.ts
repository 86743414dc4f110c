import { expect, test } from 'vitest';
import { DAY } from '@/core/base/time';
import { offeredTerms, stillOpen } from '@/ui/dispatches/offered-terms';

const NOW = Date.UTC(2026, 10, 28);
const given = (address: string, over: object = {}) => ({
  address,
  parent: null,
  revokedAt: null,
  rights: ['read' as const],
  from: null,
  until: NOW + DAY,
  prints: null,
  conditions: { opens: 3, networks: ['192.0.2.0/24'] },
  ...over,
});

test('offers what most people of a dispatch have, with its conditions, then each person’s', () => {
  const offered = offeredTerms(
    [
      given('odd@x.example', { rights: ['read', 'print'], conditions: null }),
      given('a@x.example'),
      given('b@x.example'),
      given('gone@x.example', { revokedAt: 1 }),
      given('passed@x.example', { parent: 'grt_1' }),
    ],
    [],
    NOW,
  );
  expect(offered.map(({ label }) => label)).toEqual([
    'Common terms (2 of 3 people)',
    'odd@x.example',
    'a@x.example',
    'b@x.example',
  ]);
  expect(offered[0]?.terms).toEqual({
    rights: ['read'],
    from: null,
    until: NOW + DAY,
    prints: null,
    conditions: { opens: 3, networks: ['192.0.2.0/24'] },
  });
});

test('says when an end had to be moved, and leaves one that is to come', () => {
  expect(
    stillOpen({ rights: ['read'], from: null, until: NOW + DAY, prints: null }, NOW),
  ).toMatchObject({ said: null });
  expect(stillOpen({ rights: ['read'], from: null, until: NOW, prints: null }, NOW)).toMatchObject({
    terms: { until: NOW + 30 * DAY },
    said: expect.stringContaining('has passed') as string,
  });
});
