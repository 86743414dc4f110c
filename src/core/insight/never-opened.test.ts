import { expect, test } from 'vitest';
import { DAY } from '@/core/base/time';
import { silenceOf } from '@/core/insight/never-opened';

const now = 100 * DAY;
test.each([
  ['delivered long ago', { mail: 'delivered', refusals: 0, openSince: now - 4 * DAY }, 'silent'],
  [
    'delivered just now',
    { mail: 'delivered', refusals: 0, openSince: now - 2 * DAY },
    'nothing-yet',
  ],
  ['on its way still', { mail: 'waiting', refusals: 0, openSince: now - 9 * DAY }, 'nothing-yet'],
  ['bounced', { mail: 'failed', refusals: 0, openSince: now - DAY }, 'mail-bounced'],
  [
    'refused, mail or not',
    { mail: 'failed', refusals: 2, openSince: now - DAY },
    'tried-and-refused',
  ],
  ['handed over without mail', { mail: null, refusals: 0, openSince: now - 4 * DAY }, 'silent'],
] as const)('%s', (_name, facts, expected) => {
  expect(silenceOf(facts, now)).toBe(expected);
});
