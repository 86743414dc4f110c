import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import type { GrantId, StaffId } from '@/core/base/ids';
import { compileDocument, type DocumentPolicy, type GrantFacts } from '@/core/policy/compile';
import { ANYWHERE, UNUSED } from '@/core/policy/conditions';
import { decide as decideCompiled, type Asking, type Decision } from '@/core/policy/decide';
import { RIGHTS, type Right } from '@/core/policy/rights';

const NOW = 1_800_000_000_000;
const STAFF: StaffId = 'stf_00000000000000000001';

/** What a decision rests on, in one piece. */
type Facts = Omit<Asking, 'at'> & {
  readonly document: Omit<DocumentPolicy, 'grants' | 'ceilings'>;
  readonly grants: readonly GrantFacts[];
};

function decide({ document, grants, ...asking }: Facts, now: number): Decision {
  return decideCompiled(compileDocument({ ...document, grants, ceilings: [] }), {
    ...asking,
    at: { now, country: ANYWHERE, network: ANYWHERE, zone: 'UTC', device: ANYWHERE },
  });
}

function grant(
  over: Partial<Omit<GrantFacts, 'terms'>> & { terms?: Partial<GrantFacts['terms']> } = {},
): GrantFacts {
  return {
    id: 'grt_a',
    addressee: { kind: 'person', id: 'rcp_a' },
    revoked: false,
    used: UNUSED,
    givenBy: STAFF,
    givenAt: 0,
    ...over,
    terms: { rights: ['read'], from: null, until: NOW + 1, prints: null, ...over.terms },
  };
}

function facts(over: Partial<Facts> = {}): Facts {
  return {
    identity: 'proven',
    recipient: { id: 'rcp_a', blocked: false },
    document: { id: 'doc_a', revoked: false, keyDestroyed: false },
    grants: [grant()],
    ...over,
  };
}

const arbitraryGrant: fc.Arbitrary<GrantFacts> = fc.record({
  id: fc.integer({ min: 0, max: 99 }).map((n): GrantId => `grt_${String(n)}`),
  addressee: fc.constant({ kind: 'person' as const, id: 'rcp_a' }),
  revoked: fc.boolean(),
  used: fc.nat(3).map((prints) => ({ ...UNUSED, prints })),
  givenBy: fc.constant(STAFF),
  givenAt: fc.nat(5),
  terms: fc.record({
    rights: fc.uniqueArray(fc.constantFrom(...RIGHTS)),
    from: fc.option(fc.integer({ min: NOW - 2, max: NOW + 2 })),
    until: fc.option(fc.integer({ min: NOW - 2, max: NOW + 2 })),
    prints: fc.option(fc.nat(3)),
  }),
});
const arbitraryGrants = fc.uniqueArray(arbitraryGrant, {
  selector: (each) => each.id,
  maxLength: 6,
});

function granted(decision: ReturnType<typeof decide>): Right[] {
  return decision.outcome === 'refused'
    ? []
    : RIGHTS.filter((right) => decision.rights[right].granted);
}

describe('decide', () => {
  test.each<[string, Partial<Facts>, string]>([
    ['identity not proven', { identity: 'not-proven' }, 'identity-not-proven'],
    ['nobody known', { recipient: null }, 'not-addressed'],
    ['no grant', { grants: [] }, 'not-addressed'],
    ['a blocked recipient', { recipient: { id: 'rcp_a', blocked: true } }, 'recipient-blocked'],
    [
      'a revoked document',
      { document: { id: 'doc_a', revoked: true, keyDestroyed: false } },
      'document-revoked',
    ],
    [
      'a destroyed key',
      { document: { id: 'doc_a', revoked: true, keyDestroyed: true } },
      'key-destroyed',
    ],
    ['a revoked grant', { grants: [grant({ revoked: true })] }, 'revoked'],
    ['the very moment of the end', { grants: [grant({ terms: { until: NOW } })] }, 'expired'],
    ['a window that has not begun', { grants: [grant({ terms: { from: NOW + 1 } })] }, 'not-yet'],
    [
      'one to come and one revoked: says what will be',
      { grants: [grant({ id: 'grt_b', revoked: true }), grant({ terms: { from: NOW + 1 } })] },
      'not-yet',
    ],
  ])('refuses %s', (_name, over, reason) => {
    expect(decide(facts(over), NOW)).toMatchObject({ outcome: 'refused', reason });
  });

  test('the first moment of a window is inside it', () => {
    expect(decide(facts({ grants: [grant({ terms: { from: NOW } })] }), NOW).outcome).toBe(
      'granted',
    );
  });

  test('names the grant that withholds a right', () => {
    const decision = decide(facts(), NOW);
    expect(decision.outcome === 'granted' && decision.rights.print).toEqual({
      granted: false,
      why: 'not-given',
      source: { level: 'grant', grant: 'grt_a' },
    });
  });

  test('counts prints, and says when they are used up', () => {
    const twice = (printsMade: number): Facts =>
      facts({
        grants: [
          grant({
            used: { ...UNUSED, prints: printsMade },
            terms: { rights: ['read', 'print'], prints: 2 },
          }),
        ],
      });
    const after1 = decide(twice(1), NOW);
    const after2 = decide(twice(2), NOW);
    expect(after1.outcome === 'granted' && after1.rights.print).toMatchObject({
      granted: true,
      printsLeft: 1,
    });
    expect(after2.outcome === 'granted' && after2.rights.print).toMatchObject({
      granted: false,
      why: 'prints-used-up',
    });
  });

  test('keep is not given beside a print limit', () => {
    const decision = decide(
      facts({
        grants: [grant({ terms: { rights: ['read', 'copy', 'print', 'keep'], prints: 2 } })],
      }),
      NOW,
    );
    expect(decision.outcome === 'granted' && decision.rights.keep).toMatchObject({
      granted: false,
      why: 'needs-unlimited-print',
    });
  });

  test('is charged to the grant with most rights, and ends with the latest', () => {
    const wide = grant({ id: 'grt_wide', terms: { rights: ['read', 'copy'], until: NOW + 5 } });
    const long = grant({ id: 'grt_long', terms: { until: NOW + 9 } });
    expect(decide(facts({ grants: [long, wide] }), NOW)).toMatchObject({
      charged: 'grt_wide',
      until: NOW + 9,
    });
  });

  prop.prop([
    arbitraryGrants,
    fc.constantFrom<Partial<Facts>>(
      { identity: 'not-proven' },
      { recipient: { id: 'rcp_a', blocked: true } },
      { document: { id: 'doc_a', revoked: true, keyDestroyed: false } },
      { document: { id: 'doc_a', revoked: false, keyDestroyed: true } },
    ),
  ])('what refuses beats every grant', (grants, over) => {
    expect(decide(facts({ grants, ...over }), NOW).outcome).toBe('refused');
  });

  prop.prop([
    arbitraryGrants.chain((grants) =>
      fc.tuple(fc.constant(grants), fc.shuffledSubarray(grants, { minLength: grants.length })),
    ),
  ])('the order of grants changes nothing', ([grants, shuffled]) => {
    expect(decide(facts({ grants: shuffled }), NOW)).toEqual(decide(facts({ grants }), NOW));
  });

  prop.prop([arbitraryGrants])('nothing is granted that no live grant gives', (grants) => {
    const live = grants.filter(
      ({ revoked, terms }) =>
        !revoked && (terms.from ?? 0) <= NOW && (terms.until ?? Infinity) > NOW,
    );
    for (const right of granted(decide(facts({ grants }), NOW)))
      expect(live.some(({ terms }) => terms.rights.includes(right))).toBe(true);
  });

  prop.prop([arbitraryGrants])('taking a grant away never adds a right', (grants) => {
    const all = new Set(granted(decide(facts({ grants }), NOW)));
    for (const gone of grants) {
      const fewer = granted(decide(facts({ grants: grants.filter((each) => each !== gone) }), NOW));
      expect(fewer.every((right) => all.has(right))).toBe(true);
    }
  });
});

test.each<[string, Partial<Facts>, number | null]>([
  ['when it ended', { grants: [grant({ terms: { until: NOW - 5 } })] }, NOW - 5],
  ['when it begins', { grants: [grant({ terms: { from: NOW + 7 } })] }, NOW + 7],
  ['when it was revoked', { grants: [grant({ revoked: true, revokedAt: NOW - 9 })] }, NOW - 9],
  [
    'when the document was revoked',
    { document: { id: 'doc_a', revoked: true, revokedAt: NOW - 3, keyDestroyed: false } },
    NOW - 3,
  ],
  ['nothing where no moment is meant', { recipient: { id: 'rcp_a', blocked: true } }, null],
])('a refusal says %s', (_what, over, at) => {
  expect(decide(facts(over), NOW)).toMatchObject({ outcome: 'refused', at });
});

describe('what was passed on', () => {
  const BOUNDS = { people: 5, domains: null, steps: 3 };
  const giving = (over: Parameters<typeof grant>[0] & { id: GrantId }) =>
    grant({
      ...over,
      terms: { rights: [...RIGHTS], until: null, conditions: { passOn: BOUNDS }, ...over.terms },
    });
  const toA = { kind: 'person' as const, id: 'rcp_a' };
  const toB = { kind: 'person' as const, id: 'rcp_b' };
  const told = (grants: readonly GrantFacts[]) => {
    const decision = decide(facts({ grants }), NOW);
    if (decision.outcome === 'refused') throw new Error(decision.reason);
    return decision;
  };

  test('is kept by nobody whose giver prints are counted', () => {
    const decision = told([
      giving({ id: 'grt_p', addressee: toB, terms: { prints: 9 } }),
      giving({ id: 'grt_c', addressee: toA, parent: 'grt_p' }),
    ]);
    expect(decision.rights.keep).toMatchObject({ granted: false, why: 'needs-unlimited-print' });
    expect(decision.rights.print).toMatchObject({ granted: true, printsLeft: 9 });
  });

  test('goes no further than the person who passed it on may themselves, also when they were narrowed since', () => {
    const passOn = { people: 1, domains: ['@yard.example'], steps: 2 };
    const decision = told([
      giving({ id: 'grt_p', addressee: toB, terms: { conditions: { passOn } } }),
      giving({ id: 'grt_c', addressee: toA, parent: 'grt_p' }),
    ]);
    expect(decision.obligations.passOn).toEqual({
      people: 1,
      domains: ['@yard.example'],
      steps: 1,
    });
    const last = told([
      giving({
        id: 'grt_p',
        addressee: toB,
        terms: { conditions: { passOn: { ...passOn, steps: 1 } } },
      }),
      giving({ id: 'grt_c', addressee: toA, parent: 'grt_p' }),
    ]);
    expect(last.rights['pass-on'].granted).toBe(false);
    expect(last.obligations.passOn).toBeNull();
  });

  test('covers its pages and stays offline as its giver does', () => {
    const decision = told([
      giving({
        id: 'grt_p',
        addressee: toB,
        terms: { conditions: { passOn: BOUNDS, captureDeterrent: true, offline: 10 } },
      }),
      giving({
        id: 'grt_c',
        addressee: toA,
        parent: 'grt_p',
        terms: { conditions: { offline: 99 } },
      }),
    ]);
    expect(decision.obligations).toMatchObject({ captureDeterrent: true, offline: 10 });
  });

  test('a chain of 20,000 steps is compiled, whichever end comes first', () => {
    const chain = Array.from({ length: 20_000 }, (_, i): GrantFacts =>
      giving({
        id: `grt_${String(i)}`,
        addressee: i === 19_999 ? toA : toB,
        parent: i === 0 ? null : `grt_${String(i - 1)}`,
      }),
    );
    expect(granted(decide(facts({ grants: chain }), NOW))).toContain('read');
    expect(granted(decide(facts({ grants: chain.toReversed() }), NOW))).toContain('read');
  });
});

test('an open is charged to the grant whose rights have an effect, not to the longer list', () => {
  // Keep comes to nothing where prints are counted; so the three rights of the other grant are more.
  const grants = [
    grant({ id: 'grt_a', terms: { rights: ['read', 'print', 'keep'], prints: 3 } }),
    grant({ id: 'grt_b', terms: { rights: ['read', 'copy', 'print'] } }),
  ];
  expect(decide(facts({ grants }), NOW)).toMatchObject({ charged: 'grt_b' });
});

test.each([
  ['::ffff:192.0.2.0/120', '192.0.2.9', true],
  ['::ffff:192.0.2.0/120', '::ffff:192.0.2.9', true],
  ['192.0.2.0/24', '::ffff:192.0.2.9', true],
  ['::ffff:192.0.2.0/120', '198.51.100.1', false],
  ['::ffff:c000:200/120', '192.0.2.9', true],
  ['::/0', '192.0.2.9', false],
  ['2001:db8::/32', '2001:db8::1', true],
])('the network %s holds the address %s: %s', (network, address, isIn) => {
  const policy = compileDocument({
    id: 'doc_a',
    revoked: false,
    keyDestroyed: false,
    ceilings: [],
    grants: [grant({ terms: { conditions: { networks: [network] } } })],
  });
  const decision = decideCompiled(policy, {
    identity: 'proven',
    recipient: { id: 'rcp_a', blocked: false },
    at: { now: NOW, country: ANYWHERE, network: address, zone: 'UTC', device: ANYWHERE },
  });
  expect(decision.outcome === 'granted').toBe(isIn);
});
