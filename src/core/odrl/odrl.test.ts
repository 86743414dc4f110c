import {
  MARK_COLOURS,
  MARK_CORNERS,
  MARK_LIMITS,
  MARK_MEDIA,
  MARK_PLACES,
  newLayer,
  type MarkLayer,
} from '@/core/watermark/layers';
import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import type { Conditions, Weekday } from '@/core/policy/conditions';
import { compileDocument } from '@/core/policy/compile';
import { decide } from '@/core/policy/decide';
import { RIGHTS, type Right, type Terms } from '@/core/policy/rights';
import { randomCase } from '../../../tests/support/random-policy';
import { grantsFromOdrl, grantsToOdrl, type StatedGrant } from '@/core/odrl/grants';
import { termsFromOdrl, termsToOdrl, type NamedTerms } from '@/core/odrl/saved-terms';
import type { Json } from '@/core/odrl/report';

const rights = fc
  .subarray(RIGHTS.filter((right) => right !== 'read'))
  .map((others): Right[] => RIGHTS.filter((right) => right === 'read' || others.includes(right)));
const count = fc.option(fc.integer({ min: 1, max: 999 }), { nil: null });
const text = fc
  .string({ minLength: 1, maxLength: 40, unit: 'grapheme' })
  .filter((value) => value.trim() === value && value !== '');
const moment = fc.option(fc.integer({ min: 0, max: 4e12 }), { nil: null });
const printsFor = (given: readonly Right[], prints: number | null): number | null =>
  given.includes('print') ? prints : null;

const minute = fc.integer({ min: 0, max: 1440 });
const conditions: fc.Arbitrary<Conditions> = fc.record(
  {
    opens: fc.integer({ min: 1, max: 99 }),
    within: fc.integer({ min: 1, max: 1e9 }),
    countries: fc.uniqueArray(fc.constantFrom('NO', 'GB', 'XA'), { minLength: 1 }),
    networks: fc.uniqueArray(fc.constantFrom('192.0.2.0/24', '2001:db8::/32'), { minLength: 1 }),
    hours: fc.record({
      days: fc.uniqueArray(fc.constantFrom<Weekday>(1, 2, 3, 4, 5, 6, 7), { minLength: 1 }),
      from: minute,
      to: minute,
    }),
    rememberedDevice: fc.constant(true),
    devices: fc.integer({ min: 1, max: 9 }),
    proveEvery: fc.integer({ min: 60_000, max: 1e9 }),
    offline: fc.integer({ min: 0, max: 1e9 }),
    captureDeterrent: fc.constant(true),
    passOn: fc.record({
      people: fc.integer({ min: 1, max: 9999 }),
      steps: fc.integer({ min: 1, max: 9 }),
      domains: fc.option(
        fc.uniqueArray(fc.constantFrom('@yard.example', '@x.example'), { minLength: 1 }),
        { nil: null },
      ),
    }),
  },
  { requiredKeys: [] },
);
const limited = (name: keyof typeof MARK_LIMITS) => fc.integer(MARK_LIMITS[name]);
const anyLayer: fc.Arbitrary<MarkLayer> = fc
  .record({
    place: fc.constantFrom(...MARK_PLACES),
    on: fc.constantFrom(...MARK_MEDIA),
    line: fc.constantFrom('Seen by {name}', '{attribute:Lot} · {copy}', 'plain words'),
    zone: fc.constantFrom(null, 'UTC', 'Asia/Tokyo'),
    size: limited('size'),
    angle: limited('angle'),
    density: limited('density'),
    strength: limited('strength'),
    colour: fc.constantFrom(...MARK_COLOURS),
    corner: fc.constantFrom(...MARK_CORNERS),
  })
  .map((layer) => (layer.place === 'banner' ? { ...layer, on: 'paper' } : layer));
const terms: fc.Arbitrary<NamedTerms> = fc
  .record({
    name: text,
    rights,
    days: fc.option(fc.integer({ min: 1, max: 3650 }), { nil: null }),
    prints: count,
    watermark: fc.array(anyLayer, { maxLength: 6 }),
    conditions,
  })
  .map(({ conditions: others, ...each }) => ({
    ...each,
    prints: printsFor(each.rights, each.prints),
    ...(Object.keys(others).length === 0 ? {} : { conditions: others }),
  }));
const grant: fc.Arbitrary<StatedGrant> = fc
  .record({
    id: fc.constantFrom('grt_00000000000000000001', null),
    parent: fc.constantFrom('grt_00000000000000000002', null),
    reference: text,
    giver: fc.emailAddress(),
    address: fc.oneof(
      fc.emailAddress(),
      fc.constantFrom(
        '@yard.example',
        'group:grp_00000000000000000001',
        'link:dsp_00000000000000000001',
        'visitor:ab12',
      ),
    ),
    rights,
    from: moment,
    until: moment,
    prints: count,
    revoked: fc.boolean(),
    conditions,
  })
  .map(({ rights: given, from, until, prints, conditions: others, ...rest }) => ({
    ...rest,
    terms: {
      rights: given,
      from,
      until,
      prints: printsFor(given, prints),
      ...(Object.keys(others).length === 0 ? {} : { conditions: others }),
    },
  }));

/** As a file would carry it. */
const throughText = (document: Json): Json => JSON.parse(JSON.stringify(document)) as Json;

describe('a round trip loses nothing and adds nothing', () => {
  prop.prop([fc.array(terms, { maxLength: 6 })])('saved terms', (all) => {
    expect(termsFromOdrl(throughText(termsToOdrl(all)))).toEqual(
      all.map((each) => ({ name: each.name, terms: each, unknown: [] })),
    );
  });

  prop.prop([fc.array(grant, { maxLength: 6 })])('grants', (all) => {
    expect(grantsFromOdrl(throughText(grantsToOdrl(all)))).toEqual(
      all.map((each) => ({ grant: each, unknown: [] })),
    );
  });
});

test('what was refused is not granted after a round trip: what cannot be said stops its policy', () => {
  let stopped = 0;
  let compared = 0;
  for (let seed = 0; seed < 2_000; seed++) {
    const { policy, asking } = randomCase(seed);
    for (const facts of policy.grants) {
      const stated: StatedGrant = {
        id: null,
        parent: null,
        reference: 'A',
        giver: 'a@x.example',
        address: 'b@x.example',
        revoked: facts.revoked,
        terms: facts.terms,
      };
      const [read] = grantsFromOdrl(throughText(grantsToOdrl([stated])));
      if (read?.grant == null || read.unknown.length > 0) {
        stopped++;
        continue;
      }
      compared++;
      const verdictOn = (terms: Terms) => {
        const alone = compileDocument({
          ...policy,
          revoked: false,
          keyDestroyed: false,
          grants: [{ ...facts, parent: null, addressee: { kind: 'person', id: 'rcp_a' }, terms }],
        });
        const decision = decide(alone, {
          ...asking,
          identity: 'proven',
          recipient: { id: 'rcp_a', blocked: false },
        });
        return decision.outcome === 'refused'
          ? { refused: decision.reason }
          : {
              rights: RIGHTS.filter((right) => decision.rights[right].granted),
              bounds: decision.obligations,
            };
      };
      expect(verdictOn(read.grant.terms)).toEqual(verdictOn(facts.terms));
    }
  }
  expect(Math.min(stopped, compared)).toBeGreaterThan(400);
});

const sample: NamedTerms = {
  name: 'Bidders',
  rights: ['read', 'print'],
  days: 21,
  prints: 2,
  watermark: [newLayer('tiled', '{address}')],
};

describe('what others write', () => {
  test('one policy without a graph, a single permission, and full names of actions are understood', () => {
    expect(
      termsFromOdrl({
        '@context': 'http://www.w3.org/ns/odrl.jsonld',
        '@type': 'Set',
        uid: 'urn:x',
        permission: { target: 'urn:y', action: 'http://www.w3.org/ns/odrl/2/display' },
      }),
    ).toEqual([
      {
        name: 'policy 1',
        unknown: [],
        terms: { name: 'policy 1', rights: ['read'], days: null, prints: null, watermark: [] },
      },
    ]);
  });

  const policy = (change: (policy: Record<string, Json>) => void): Json => {
    const document = throughText(termsToOdrl([sample])) as { '@graph': Record<string, Json>[] };
    const [first] = document['@graph'];
    if (first !== undefined) change(first);
    return document;
  };
  const printing = (first: Record<string, Json>): Record<string, Json> =>
    (first['permission'] as Record<string, Json>[])[1] ?? {};

  test.each<[string, (first: Record<string, Json>) => void, string]>([
    [
      'an unknown action',
      (first) => {
        printing(first)['action'] = 'play';
      },
      'permission/1/action',
    ],
    [
      'an unknown condition',
      (first) => {
        (printing(first)['constraint'] as Json[]).push({
          leftOperand: 'spatial',
          operator: 'eq',
          rightOperand: 'NO',
        });
      },
      'permission/1/constraint/2',
    ],
    [
      'a known condition with another operator',
      (first) => {
        (printing(first)['constraint'] as Record<string, Json>[])[0] = {
          leftOperand: 'dateTime',
          operator: 'eq',
          rightOperand: '2026-11-25',
        };
      },
      'permission/1/constraint/0',
    ],
    [
      'a prohibition',
      (first) => {
        first['prohibition'] = [];
      },
      'prohibition',
    ],
    [
      'a duty of another kind',
      (first) => {
        first['obligation'] = [{ action: 'compensate' }];
      },
      'obligation',
    ],
    [
      'a duty within a permission',
      (first) => {
        printing(first)['duty'] = [];
      },
      'permission/1/duty',
    ],
    [
      'another profile',
      (first) => {
        first['profile'] = 'urn:other';
      },
      'profile',
    ],
    [
      'an end that differs between rights',
      (first) => {
        printing(first)['constraint'] = [];
      },
      'permission',
    ],
    [
      'a count on reading',
      (first) => {
        ((first['permission'] as Record<string, Json>[])[0]?.['constraint'] as Json[]).push({
          leftOperand: 'count',
          operator: 'lteq',
          rightOperand: 3,
        });
      },
      'permission/0/constraint/1',
    ],
    [
      'no right to read',
      (first) => {
        (first['permission'] as Json[]).shift();
      },
      'permission',
    ],
    [
      'one right twice',
      (first) => {
        (first['permission'] as Json[]).push(printing(first));
      },
      'permission',
    ],
    [
      'an agreement',
      (first) => {
        first['@type'] = 'Agreement';
      },
      '@type',
    ],
  ])('%s is reported where it stands, and not dropped', (_name, change, path) => {
    const [read] = termsFromOdrl(policy(change));
    expect(read?.unknown.map((each) => each.path)).toContain(path);
  });

  test.each<[Json]>([
    [null],
    [7],
    ['text'],
    [[]],
    [{}],
    [{ '@graph': [null, 3, {}] }],
    [
      {
        '@graph': {
          permission: [
            null,
            { action: ['display'] },
            { action: 'display', constraint: [null, 'x', {}] },
          ],
        },
      },
    ],
  ])('%j breaks nothing', (document) => {
    for (const { terms: found, unknown } of termsFromOdrl(document))
      expect(found === null || unknown.length > 0).toBe(true);
    for (const { unknown } of grantsFromOdrl(document)) expect(unknown.length).toBeGreaterThan(0);
  });

  prop.prop([fc.jsonValue()])('any JSON is read or reported', (value) => {
    for (const { terms: found, unknown } of termsFromOdrl(value as Json))
      expect(unknown.length > 0 || found?.rights.includes('read') === true).toBe(true);
  });
});

describe('conditions of a grant', () => {
  const one = (constraint: Json): Json => {
    const document = throughText(
      grantsToOdrl([
        {
          id: 'grt_00000000000000000001',
          parent: null,
          reference: 'A',
          giver: 'a@x.example',
          address: 'b@x.example',
          revoked: false,
          terms: { rights: ['read'], from: null, until: null, prints: null },
        },
      ]),
    ) as { '@graph': Record<string, Json>[] };
    const [agreement = {}] = document['@graph'];
    const [permission] = agreement['permission'] as Record<string, Json>[];
    return {
      ...document,
      '@graph': [{ ...agreement, permission: [{ ...permission, constraint: [constraint] }] }],
    };
  };
  test.each<[string, Json]>([
    [
      'a country that is none',
      { leftOperand: 'spatial', operator: 'isAnyOf', rightOperand: ['NOR'] },
    ],
    [
      'a network that is none',
      { leftOperand: 'embargo:network', operator: 'isAnyOf', rightOperand: ['192.0.2.0'] },
    ],
    ['no opens', { leftOperand: 'embargo:opens', operator: 'lteq', rightOperand: 0 }],
    [
      'an eighth day',
      { leftOperand: 'embargo:hours', operator: 'eq', rightOperand: '1,8 08:00-17:00' },
    ],
    ['another operator', { leftOperand: 'spatial', operator: 'isNoneOf', rightOperand: ['NO'] }],
    [
      'a span in months',
      {
        leftOperand: 'elapsedTime',
        operator: 'lt',
        rightOperand: { '@value': 'P1M', '@type': 'xsd:duration' },
      },
    ],
  ])('are not guessed at: %s', (_name, constraint) => {
    expect(grantsFromOdrl(one(constraint))[0]?.unknown).toMatchObject([
      { path: 'permission/0/constraint/0' },
    ]);
  });
});
