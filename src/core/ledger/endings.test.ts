import type { Limits } from '@/core/policy/ceiling';
import { fc, test as prop } from '@fast-check/vitest';
import type { FolderId } from '@/core/base/ids';
import { describe, expect, test } from 'vitest';
import {
  both,
  endingLine,
  narrower,
  newestEndings,
  parseEnding,
  stricter,
  stricterSender,
  type Ending,
} from '@/core/ledger/endings';
import { RIGHTS } from '@/core/policy/rights';

const grant = (change: Partial<Extract<Ending, { of: 'grant' }>> = {}): Ending => ({
  sequence: 7,
  of: 'grant',
  id: 'grt_00000000000000000001',
  revoked: true,
  until: null,
  rights: ['read'],
  prints: null,
  printsMade: 2,
  ...change,
});
const limit = fc.option(fc.integer({ min: 0, max: 1000 }), { nil: null });
const terms = fc.record({ until: limit, prints: limit, rights: fc.subarray([...RIGHTS]) });

describe('the list of what ended', () => {
  test('a line is read as it was written', () => {
    for (const ending of [
      grant(),
      {
        sequence: 1,
        of: 'document',
        id: 'doc_00000000000000000001',
        revoked: false,
        destroyed: true,
      },
      { sequence: 2, of: 'recipient', id: 'rcp_00000000000000000001', blocked: true },
      { sequence: 3, of: 'staff', id: 'stf_00000000000000000001', disabled: true },
    ] satisfies Ending[]) {
      expect(endingLine(ending).endsWith('\n')).toBe(true);
      expect(parseEnding(endingLine(ending))).toEqual(ending);
    }
  });

  test.each([
    '',
    'Dear all',
    '{}',
    endingLine(grant()).slice(0, 40),
    endingLine(grant()).replace('grt_', 'doc_'),
    '{"sequence":1,"of":"everything","id":"x"}',
  ])('%j is none', (line) => {
    expect(parseEnding(line)).toBeNull();
  });

  test('the newest line of each counts', () => {
    const { grants, documents } = newestEndings([grant(), grant({ sequence: 9, revoked: false })]);
    expect([grants.size, grants.get('grt_00000000000000000001')?.revoked, documents.size]).toEqual([
      1,
      false,
      0,
    ]);
  });
});

describe('the narrower of two terms', () => {
  const reach = (until: number | null): number => until ?? Number.POSITIVE_INFINITY;

  prop.prop([terms, terms])('never allows more than either, and order does not matter', (a, b) => {
    const narrow = narrower(a, b);
    for (const one of [a, b]) {
      expect(narrow.rights.every((right) => one.rights.includes(right))).toBe(true);
      expect(reach(narrow.until)).toBeLessThanOrEqual(reach(one.until));
      expect(reach(narrow.prints)).toBeLessThanOrEqual(reach(one.prints));
    }
    const other = narrower(b, a);
    expect({ ...other, rights: [...other.rights].sort() }).toEqual({
      ...narrow,
      rights: [...narrow.rights].sort(),
    });
  });

  prop.prop([terms])('of one and itself is itself', (one) => {
    expect(narrower(one, one)).toEqual(one);
  });
});

describe('the stricter of two ceilings, and all conditions of two', () => {
  const ceiling = fc.record({
    rights: fc.option(fc.subarray([...RIGHTS])),
    days: limit,
    prints: limit,
    opens: limit,
    countries: fc.option(fc.subarray(['NO', 'GB', 'DE'])),
    networks: fc.constant(null),
    passkey: fc.constantFrom(true as const, null),
    offline: fc.constantFrom('never' as const, 0, 5, 9, null),
  });
  const most = (value: number | null): number => value ?? Number.POSITIVE_INFINITY;
  const offline = ({ offline: limit }: Pick<Limits, 'offline'>): number =>
    limit === 'never' ? -1 : most(limit);

  prop.prop([ceiling, ceiling])('limit whatever either limits, and as much', (a, b) => {
    const found = stricter(a, b);
    for (const one of [a, b]) {
      for (const name of ['days', 'prints', 'opens'] as const)
        expect(most(found[name])).toBeLessThanOrEqual(most(one[name]));
      expect(offline(found)).toBeLessThanOrEqual(offline(one));
      for (const name of ['rights', 'countries'] as const)
        expect(
          one[name] === null ||
            (found[name]?.every((each) => one[name]?.some((other) => other === each)) ?? false),
        ).toBe(true);
    }
  });

  test('ask for the smaller number, what both lists have, and of networks what was asked last', () => {
    expect(
      both(
        { opens: 5, countries: ['NO', 'GB'], networks: ['192.0.2.0/24'] },
        { opens: 2, countries: ['GB', 'DE'], networks: ['192.0.2.0/25'], rememberedDevice: true },
      ),
    ).toEqual({ opens: 2, countries: ['GB'], networks: ['192.0.2.0/25'], rememberedDevice: true });
    expect([both(null, { opens: 1 }), both({ opens: 1 }, null), both(null, null)]).toEqual([
      { opens: 1 },
      { opens: 1 },
      null,
    ]);
  });
});

describe('the stricter of two sets of a sender’s limits', () => {
  const some = <T>(values: readonly T[]): fc.Arbitrary<readonly T[] | null> =>
    fc.option(fc.subarray([...values]), { nil: null });
  const limits = fc.record({
    domains: some(['@a.example', '@b.example']),
    folders: some<FolderId>(['fld_1', 'fld_2']),
    rights: some(RIGHTS),
    days: limit,
  });
  const within = (inner: readonly string[] | null, outer: readonly string[] | null): boolean =>
    outer === null || inner?.every((each) => outer.includes(each)) === true;

  prop.prop([limits, limits])('leaves only what both leave, whichever comes first', (a, b) => {
    const found = stricterSender(a, b);
    for (const each of [a, b]) {
      expect(
        within(found.domains, each.domains) &&
          within(found.folders, each.folders) &&
          within(found.rights, each.rights),
      ).toBe(true);
      expect(found.days ?? Number.POSITIVE_INFINITY).toBeLessThanOrEqual(
        each.days ?? Number.POSITIVE_INFINITY,
      );
    }
    const other = stricterSender(b, a);
    expect([
      other.days,
      other.domains?.length,
      other.folders?.length,
      other.rights?.length,
    ]).toEqual([found.days, found.domains?.length, found.folders?.length, found.rights?.length]);
  });

  test('a rule and a member of staff, with limits or from before there were any, are read as written', () => {
    const lines: Ending[] = [
      { sequence: 1, of: 'rule', way: 'link', leave: 'forbidden' },
      {
        sequence: 2,
        of: 'staff',
        id: 'stf_00000000000000000001',
        disabled: false,
        limits: { domains: ['@a.example'], folders: null, rights: null, days: 3 },
      },
      { sequence: 3, of: 'staff', id: 'stf_00000000000000000002', disabled: true },
    ];
    expect(lines.map((line) => parseEnding(endingLine(line)))).toEqual(lines);
    const { rules, staff } = newestEndings([
      ...lines,
      { sequence: 4, of: 'rule', way: 'link', leave: 'agreed' },
    ]);
    expect([
      rules.get('link')?.leave,
      staff.get('stf_00000000000000000001')?.limits?.days,
      staff.get('stf_00000000000000000002')?.limits,
    ]).toEqual(['agreed', 3, undefined]);
    expect(parseEnding('{"sequence":1,"of":"rule","way":"pigeon","leave":"forbidden"}')).toBeNull();
  });
});
