import { expect, test } from 'vitest';
import { HOUR } from '@/core/base/time';
import {
  boundsOf,
  boundsWithin,
  conditionsEnd,
  conditionTest,
  isKnownCondition,
} from '@/core/policy/condition-effects';
import { ANYWHERE, UNUSED, type Circumstances, type Conditions } from '@/core/policy/conditions';
import { constraintsOf } from '@/core/odrl/constraints';

const at: Circumstances = {
  now: 0,
  country: ANYWHERE,
  network: ANYWHERE,
  zone: 'UTC',
  device: ANYWHERE,
};

test.each(['before-lunch', 'toString', 'constructor', '__proto__', 'hasOwnProperty'])(
  'a condition called %s is not known: it refuses and is stated as unknown',
  (name) => {
    const conditions = JSON.parse(`{ "${name}": 3 }`) as Conditions;
    expect(isKnownCondition(name)).toBe(false);
    expect(conditionTest(conditions)?.(at, UNUSED)).toBe('condition-unknown');
    expect(constraintsOf(conditions)).toEqual([
      expect.objectContaining({ leftOperand: 'embargo:unknownCondition', rightOperand: name }),
    ]);
  },
);

test('nothing asked is nothing tested', () => {
  expect(conditionTest({})).toBeNull();
  expect(conditionTest({ opens: null, countries: null })).toBeNull();
});

test('what the person can most easily do something about is said first', () => {
  const refusing = conditionTest({ opens: 1, hours: null, proveEvery: HOUR, countries: ['NO'] });
  const abroad = {
    ...at,
    country: 'GB',
    device: { id: 'd', kept: true, provenAt: -2 * HOUR, passkeyAt: null },
  };
  const used = { ...UNUSED, opens: 1 };
  expect(refusing?.(abroad, used)).toBe('prove-again');
  expect(refusing?.({ ...abroad, device: ANYWHERE }, used)).toBe('place-not-allowed');
  expect(refusing?.(at, used)).toBe('opens-used-up');
  expect(refusing?.(at, UNUSED)).toBeNull();
});

test('time from the first open ends a grant once there was one', () => {
  expect(conditionsEnd({ within: HOUR }, UNUSED)).toBe(Number.POSITIVE_INFINITY);
  expect(conditionsEnd({ within: HOUR }, { ...UNUSED, firstOpenedAt: 5 })).toBe(HOUR + 5);
});

test('of two bounds the stricter holds', () => {
  const own = boundsOf({ offline: HOUR, captureDeterrent: false });
  const above = boundsOf({ captureDeterrent: true });
  expect(boundsWithin(own, above)).toEqual({ offline: null, captureDeterrent: true, passOn: null });
});
