import { expect, test } from 'vitest';
import { createRequestRate } from '@/server/config/request-rate';

const passed = (
  rate: ReturnType<typeof createRequestRate>,
  times: number,
  network: string,
  browser: string | null,
  now: number,
): number =>
  Array.from({ length: times }, () => rate(network, browser, now)).filter(Boolean).length;

test('one browser gets so many at once and a steady number after that, others on its network as well', () => {
  const rate = createRequestRate();
  expect(passed(rate, 500, '203.0.113.9', 'a', 0)).toBe(80);
  expect(passed(rate, 10, '203.0.113.9', 'b', 0)).toBe(10);
  expect(passed(rate, 500, '203.0.113.9', 'a', 1_000)).toBe(40);
  expect(passed(rate, 500, '203.0.113.9', 'a', 60_000)).toBe(80);
});

test('a network is counted as a whole, no matter who its browsers say they are, and others are not', () => {
  const rate = createRequestRate();
  expect(
    Array.from({ length: 900 }, (_, i) => rate('203.0.113.9', `browser ${String(i)}`, 0)).filter(
      Boolean,
    ),
  ).toHaveLength(400);
  expect(rate('203.0.113.9', null, 0)).toBe(false);
  expect(rate('203.0.113.10', null, 0)).toBe(true);
  expect(passed(rate, 900, '203.0.113.9', null, 1_000)).toBe(150);
});

test('the addresses of one IPv6 subscriber are one network', () => {
  const rate = createRequestRate();
  expect(
    Array.from({ length: 900 }, (_, i) =>
      rate(`2001:db8:0:1::${(i + 1).toString(16)}`, null, 0),
    ).filter(Boolean),
  ).toHaveLength(400);
  expect(rate('2001:db8:0:2::1', null, 0)).toBe(true);
});
