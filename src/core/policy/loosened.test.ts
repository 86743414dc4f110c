import { newLayer } from '@/core/watermark/layers';
import { fc, test } from '@fast-check/vitest';
import { describe, expect, it } from 'vitest';
import { NO_LIMITS, underCeilings, type Ceiling, type Limits } from '@/core/policy/ceiling';
import type { LevelDefaults } from '@/core/policy/defaults';
import { imposedOn, loosened } from '@/core/policy/loosened';
import { RIGHTS } from '@/core/policy/rights';

const ceiling = (limits: Partial<Limits>, subject = 'fld_1'): Ceiling => ({
  level: 'folder',
  subject,
  limits: { ...NO_LIMITS, ...limits },
  setBy: 'stf_1',
  setAt: 0,
});
const mark = (watermark: string, subject = 'fld_1'): LevelDefaults => ({
  level: 'folder',
  subject,
  defaults: { rights: null, days: null, prints: null },
  watermark: watermark === '' ? [] : [newLayer('tiled', watermark)],
  setBy: 'stf_1',
  setAt: 0,
});
const under = (...ceilings: Ceiling[]) => ({ ceilings, marks: [] });

describe('moved from under', () => {
  it.each<[string, Partial<Limits>, Partial<Limits> | null, boolean]>([
    ['rights, to none', { rights: ['read'] }, null, true],
    ['rights, to the same', { rights: ['read'] }, { rights: ['read'] }, false],
    ['rights, to fewer', { rights: ['read', 'copy'] }, { rights: ['read'] }, false],
    ['rights, to more', { rights: ['read'] }, { rights: ['read', 'copy'] }, true],
    ['days, to fewer', { days: 9 }, { days: 3 }, false],
    ['days, to more', { days: 3 }, { days: 9 }, true],
    ['prints, to opens', { prints: 1 }, { opens: 1 }, true],
    ['countries, to some of them', { countries: ['NO', 'SE'] }, { countries: ['NO'] }, false],
    [
      'networks, to others',
      { networks: ['192.0.2.0/24'] },
      { networks: ['198.51.100.0/24'] },
      true,
    ],
    [
      'networks, to one of them',
      { networks: ['192.0.2.0/24', '198.51.100.0/24'] },
      { networks: ['198.51.100.0/24'] },
      false,
    ],
    ['nothing', {}, null, false],
  ])('%s: %#', (_what, before, after, loosens) => {
    expect(
      loosened(
        under(ceiling(before)),
        under(...(after === null ? [] : [ceiling(after, 'fld_2')])),
      ) !== null,
    ).toBe(loosens);
  });

  it('a required watermark, which has to be required there as well', () => {
    const before = { ceilings: [], marks: [mark('SECRET')] };
    expect(loosened(before, { ceilings: [], marks: [] })).toMatchObject({ subject: 'fld_1' });
    expect(loosened(before, { ceilings: [], marks: [mark('OTHER', 'fld_2')] })).not.toBeNull();
    expect(
      loosened(before, { ceilings: [], marks: [mark('OTHER', 'fld_2'), mark('SECRET', 'fld_3')] }),
    ).toBeNull();
  });

  it('what is imposed follows the folders', () => {
    const levels = {
      ceilings: [ceiling({ days: 1 }, 'fld_top')],
      marks: [mark('', 'fld_top'), mark('SECRET', 'fld_low')],
      parents: new Map([
        ['fld_low', 'fld_top'],
        ['fld_top', null],
      ]),
    };
    expect(
      imposedOn({ document: 'doc_1', marking: null, folder: 'fld_low' }, levels),
    ).toMatchObject({ ceilings: [{ subject: 'fld_top' }], marks: [{ subject: 'fld_low' }] });
    expect(imposedOn({ document: 'doc_1', marking: null, folder: null }, levels)).toEqual({
      ceilings: [],
      marks: [],
    });
  });
});

const limits = fc.record({
  rights: fc.option(fc.subarray([...RIGHTS]), { nil: null }),
  days: fc.option(fc.integer({ min: 1, max: 5 }), { nil: null }),
  prints: fc.option(fc.integer({ min: 0, max: 3 }), { nil: null }),
  opens: fc.option(fc.integer({ min: 0, max: 3 }), { nil: null }),
  countries: fc.option(fc.subarray(['NO', 'SE', 'DE']), { nil: null }),
  networks: fc.constant(null),
});
const some = fc.array(limits, { maxLength: 3 }).map((all) => all.map((each) => ceiling(each)));

function most(limit: number | null | undefined): number {
  return limit ?? Infinity;
}

type List = readonly string[] | null | undefined;
/** No list is no limit. */
function isWithin(list: List, larger: List): boolean {
  return larger == null || list?.every((each) => larger.includes(each)) === true;
}

test.prop([some, some], { numRuns: 2_000 })(
  'what is not said to be loosened gives nobody more',
  (before, after) => {
    if (loosened(under(...before), under(...after)) !== null) return;
    const own = { rights: RIGHTS, from: null, until: null, prints: null, conditions: {} };
    const [a, b] = [underCeilings(own, 0, before).terms, underCeilings(own, 0, after).terms];
    expect(b.rights.every((right) => a.rights.includes(right))).toBe(true);
    expect(most(b.until)).toBeLessThanOrEqual(most(a.until));
    expect(most(b.prints)).toBeLessThanOrEqual(most(a.prints));
    expect(most(b.conditions?.opens)).toBeLessThanOrEqual(most(a.conditions?.opens));
    expect(isWithin(b.conditions?.countries, a.conditions?.countries)).toBe(true);
  },
);
