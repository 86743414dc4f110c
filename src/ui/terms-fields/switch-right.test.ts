import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import { OFFERED_RIGHTS, brokenDependencies } from '@/core/policy/rights';
import { switchRight, type TermsDraft } from '@/ui/terms-fields/switch-right';

const terms = (over: Partial<TermsDraft> = {}): TermsDraft => ({
  rights: ['read'],
  from: null,
  until: null,
  prints: null,
  ...over,
});

describe('switching a right', () => {
  test('on that needs nothing more says nothing', () => {
    expect(switchRight(terms(), 'copy', true)).toEqual({
      terms: terms({ rights: ['read', 'copy'] }),
      said: null,
    });
  });

  test('off takes with it what cannot stand without it, and says so', () => {
    const { terms: next, said } = switchRight(
      terms({ rights: ['read', 'copy', 'print', 'keep'] }),
      'copy',
      false,
    );
    expect(next.rights).toEqual(['read', 'print']);
    expect(said).toBe('Keep a copy is possible only where text may be copied too, so it is off.');
  });

  test('print off forgets how many prints there were to be', () => {
    expect(
      switchRight(terms({ rights: ['read', 'print'], prints: 2 }), 'print', false).terms.prints,
    ).toBeNull();
  });

  prop.prop([
    fc.subarray([...OFFERED_RIGHTS]),
    fc.option(fc.integer({ min: 1, max: 9 })),
    fc.constantFrom(...OFFERED_RIGHTS),
    fc.boolean(),
  ])('never leaves terms that could not be sent', (rights, prints, right, on) => {
    const { terms: next } = switchRight(
      terms({ rights, prints: rights.includes('print') ? prints : null }),
      right,
      on,
    );
    expect(brokenDependencies(next)).toEqual([]);
  });
});
