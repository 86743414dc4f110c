import { fc, test } from '@fast-check/vitest';
import { describe, expect, it } from 'vitest';
import { HOUR, MINUTE } from '@/core/base/time';
import { exposure, type Held } from '@/core/policy/exposure';

const CUT = 1_800_000_000_000;
const held = (over: Partial<Held>): Held => ({
  document: 'doc_a',
  recipient: 'rcp_a',
  checkedAt: CUT - HOUR,
  offline: 3 * HOUR,
  until: null,
  ...over,
});

describe('exposure', () => {
  it('is nothing where everybody asks at every page', () => {
    expect(exposure([held({ offline: 0 })], CUT)).toEqual({
      pairs: [],
      curve: [{ at: CUT, readable: 0 }],
      shutOutAt: CUT,
    });
  });

  it('lasts until the allowance of the last check ends, or access itself, for each person', () => {
    const found = exposure(
      [
        held({}),
        held({ recipient: 'rcp_b', until: CUT + 30 * MINUTE }),
        held({ recipient: 'rcp_c', checkedAt: CUT - 4 * HOUR }),
      ],
      CUT,
    );
    expect(found.pairs).toEqual([
      { document: 'doc_a', recipient: 'rcp_a', until: CUT + 2 * HOUR },
      { document: 'doc_a', recipient: 'rcp_b', until: CUT + 30 * MINUTE },
    ]);
    expect(found.curve.map(({ readable }) => readable)).toEqual([2, 1, 0]);
    expect(found.shutOutAt).toBe(CUT + 2 * HOUR);
  });

  it('takes the later of two opens, and none from after the cut', () => {
    expect(
      exposure(
        [
          held({}),
          held({ checkedAt: CUT - MINUTE }),
          held({ checkedAt: CUT + 1, offline: 9 * HOUR }),
        ],
        CUT,
      ).shutOutAt,
    ).toBe(CUT - MINUTE + 3 * HOUR);
  });

  test.prop([
    fc.array(
      fc.record({
        document: fc.constantFrom('doc_a' as const, 'doc_b' as const),
        recipient: fc.constantFrom('rcp_a' as const, 'rcp_b' as const, 'rcp_c' as const),
        checkedAt: fc.integer({ min: CUT - 5 * HOUR, max: CUT }),
        offline: fc.integer({ min: 0, max: 9 * HOUR }),
        until: fc.option(fc.integer({ min: CUT, max: CUT + 9 * HOUR })),
      }),
    ),
  ])('never grows with time, nor lasts longer than anybody was allowed', (all) => {
    const { pairs, curve, shutOutAt } = exposure(all, CUT);
    for (const [index, { readable }] of curve.entries())
      expect(readable).toBeLessThanOrEqual(curve[index - 1]?.readable ?? pairs.length);
    expect(curve.at(-1)?.readable).toBe(0);
    expect(shutOutAt).toBeLessThanOrEqual(
      Math.max(CUT, ...all.map(({ checkedAt, offline }) => checkedAt + offline)),
    );
  });
});
