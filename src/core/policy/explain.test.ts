import { describe, expect, it } from 'vitest';
import { naiveDecision } from '../../../tests/support/naive-policy';
import { randomCase } from '../../../tests/support/random-policy';
import type { StaffId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import { NO_LIMITS, type Ceiling, type Limits } from '@/core/policy/ceiling';
import { changedBy, type Case, type Change } from '@/core/policy/changes';
import { compileDocument, type DocumentPolicy, type GrantFacts } from '@/core/policy/compile';
import { ANYWHERE, UNUSED } from '@/core/policy/conditions';
import { decide, type Asking } from '@/core/policy/decide';
import { explain } from '@/core/policy/explain';
import { RIGHTS, type Right, type Terms } from '@/core/policy/rights';

const NOW = 1_800_000_000_000;
const IDA: StaffId = 'stf_00000000000000000001';

function grant(terms: Partial<Terms> = {}, over: Partial<GrantFacts> = {}): GrantFacts {
  return {
    id: 'grt_a',
    addressee: { kind: 'person', id: 'rcp_a' },
    revoked: false,
    used: UNUSED,
    givenBy: IDA,
    givenAt: NOW - 10 * DAY,
    terms: { rights: ['read', 'print'], from: null, until: NOW + 30 * DAY, prints: null, ...terms },
    ...over,
  };
}
function ceiling(limits: Partial<Limits>, over: Partial<Ceiling> = {}): Ceiling {
  return {
    level: 'folder',
    subject: 'fld_a',
    setBy: 'stf_b',
    setAt: NOW - DAY,
    limits: { ...NO_LIMITS, ...limits },
    ...over,
  };
}
const asking: Asking = {
  identity: 'proven',
  recipient: { id: 'rcp_a', blocked: false, groups: ['grp_a'] },
  at: { now: NOW, country: ANYWHERE, network: ANYWHERE, zone: 'UTC', device: ANYWHERE },
};
const explained = (over: Partial<DocumentPolicy>) =>
  explain(
    compileDocument({
      id: 'doc_a',
      revoked: false,
      keyDestroyed: false,
      ceilings: [],
      grants: [grant()],
      ...over,
    }),
    asking,
  );
const reasonFor = (over: Partial<DocumentPolicy>, right: 'print' | 'keep') =>
  explained(over).rights.find((each) => each.right === right)?.reason;

describe('explain', () => {
  it('says which ceiling takes a right, who set it and when', () => {
    expect(reasonFor({ ceilings: [ceiling({ rights: ['read'] })] }, 'print')).toMatchObject({
      level: 'folder',
      subject: 'fld_a',
      setBy: 'stf_b',
      setAt: NOW - DAY,
      changes: [{ kind: 'raise-ceiling', limit: 'rights' }],
    });
  });

  it('says that the grant does not give it, where no ceiling is in the way', () => {
    expect(reasonFor({ grants: [grant({ rights: ['read'] })] }, 'print')).toEqual({
      level: 'grant',
      subject: 'grt_a',
      setBy: IDA,
      setAt: NOW - 10 * DAY,
      changes: [{ kind: 'give-right', grant: 'grt_a', right: 'print' }],
    });
  });

  it('says whose limit used the prints up', () => {
    const used = { ...UNUSED, prints: 2 };
    expect(reasonFor({ grants: [grant({ prints: 2 }, { used })] }, 'print')).toMatchObject({
      level: 'grant',
      changes: [{ kind: 'give-more-prints' }],
    });
    expect(
      reasonFor(
        {
          grants: [grant({}, { used })],
          ceilings: [ceiling({ prints: 1 }, { level: 'marking', subject: 'mrk_a' })],
        },
        'print',
      ),
    ).toMatchObject({
      level: 'marking',
      subject: 'mrk_a',
      changes: [{ kind: 'raise-ceiling', limit: 'prints' }],
    });
  });

  it('says that a ceiling, not the grant, ended it', () => {
    const { decision, why, ways } = explained({
      ceilings: [ceiling({ days: 7 }, { level: 'organisation', subject: '' })],
    });
    expect(decision).toMatchObject({ outcome: 'refused', reason: 'expired' });
    expect(why).toMatchObject({
      level: 'organisation',
      setBy: 'stf_b',
      changes: [{ kind: 'raise-ceiling', limit: 'days' }],
    });
    expect(ways).toMatchObject([
      { standing: 'expired', until: NOW - 3 * DAY, endedBy: { rule: { level: 'organisation' } } },
    ]);
  });

  it('lists the other ways that a person still has', () => {
    const { decision, ways } = explained({
      grants: [
        grant({}, { revoked: true }),
        grant({ rights: ['read'] }, { id: 'grt_b', addressee: { kind: 'group', id: 'grp_a' } }),
      ],
    });
    expect(decision.outcome).toBe('granted');
    expect(
      ways.map(({ grant: id, standing, addressee }) => [id, standing, addressee.kind]),
    ).toEqual([
      ['grt_b', 'live', 'group'],
      ['grt_a', 'revoked', 'person'],
    ]);
  });

  it('says the same as the decision, whatever the policy', () => {
    for (let seed = 0; seed < 1_500; seed++) {
      const { policy, asking: asked } = randomCase(seed);
      const document = compileDocument(policy);
      const { decision, ways, rights } = explain(document, asked);
      expect(decision).toEqual(decide(document, asked));
      expect(ways[0]?.standing === 'live' || decision.outcome === 'refused').toBe(true);
      expect(rights.map(({ right }) => right)).toEqual(RIGHTS);
      const taken = rights.filter(
        ({ verdict }) => verdict?.granted === false && verdict.why === 'above-ceiling',
      );
      expect(
        taken.every(({ reason }) => reason.changes.some(({ kind }) => kind === 'raise-ceiling')),
      ).toBe(true);
    }
  });
});

describe('the rule that is named', () => {
  const parent = (over: Partial<GrantFacts> = {}, terms: Partial<Terms> = {}) =>
    grant(
      {
        rights: ['read', 'print', 'pass-on'],
        conditions: { passOn: { people: 2, domains: null, steps: 1 } },
        ...terms,
      },
      { id: 'grt_up', addressee: { kind: 'person', id: 'rcp_up' }, givenBy: 'stf_c', ...over },
    );
  const child = (terms: Partial<Terms> = {}) => grant(terms, { parent: 'grt_up' });
  const whyChild = (
    over: Partial<GrantFacts>,
    terms: Partial<Terms> = {},
    own: Partial<Terms> = {},
  ) => explained({ grants: [child(own), parent(over, terms)] }).why;

  it('is the grant above, by its end, its right, its place and its counts', () => {
    expect(whyChild({}, { until: NOW - 1 })).toEqual({
      level: 'grant',
      subject: 'grt_up',
      setBy: 'stf_c',
      setAt: NOW - 10 * DAY,
      changes: [{ kind: 'extend-grant', grant: 'grt_up' }],
    });
    expect(whyChild({}, { rights: ['read', 'print'] })).toMatchObject({
      subject: 'grt_up',
      changes: [{ kind: 'give-right', grant: 'grt_up', right: 'pass-on' }],
    });
    expect(whyChild({ revoked: true })).toMatchObject({
      subject: 'grt_up',
      changes: [{ kind: 'reinstate-grant', grant: 'grt_up' }],
    });
    expect(whyChild({ used: { ...UNUSED, opens: 2 } }, { conditions: { opens: 2 } })).toMatchObject(
      { subject: 'grt_up', changes: [{ kind: 'change-condition', condition: 'opens' }] },
    );
    const abroad = explain(
      compileDocument({
        id: 'doc_a',
        revoked: false,
        keyDestroyed: false,
        ceilings: [],
        grants: [child(), parent({}, { conditions: { countries: ['NO'] } })],
      }),
      { ...asking, at: { ...asking.at, country: 'SE' } },
    );
    expect(abroad.why).toMatchObject({
      subject: 'grt_up',
      changes: [{ kind: 'change-condition', grant: 'grt_up', condition: 'countries' }],
    });
    expect(
      explained({
        grants: [child(), parent({ used: { ...UNUSED, prints: 1 } }, { prints: 1 })],
      }).rights.find(({ right }) => right === 'print')?.reason,
    ).toMatchObject({
      subject: 'grt_up',
      changes: [{ kind: 'give-more-prints', grant: 'grt_up' }],
    });
    expect(
      explained({ grants: [child(), parent({}, { until: NOW + DAY })] }).ways[0],
    ).toMatchObject({ until: NOW + DAY, endedBy: { rule: { subject: 'grt_up' } } });
  });

  it('is the time since the first open, where that ends it', () => {
    const used = { ...UNUSED, firstOpenedAt: NOW - 3 * DAY };
    expect(
      explained({ grants: [grant({ conditions: { within: DAY } }, { used })] }).why,
    ).toMatchObject({
      level: 'grant',
      changes: [{ kind: 'change-condition', condition: 'within' }],
    });
  });

  it('is the list that the request is outside of, not the last one there is', () => {
    const from = (network: string, ceilings: readonly Ceiling[], own: readonly string[]) =>
      explain(
        compileDocument({
          id: 'doc_a',
          revoked: false,
          keyDestroyed: false,
          ceilings,
          grants: [grant({ conditions: { networks: own } })],
        }),
        { ...asking, at: { ...asking.at, network } },
      ).why;
    const wide = ceiling(
      { networks: ['192.0.2.0/24', '198.51.100.0/24'] },
      { level: 'marking', subject: 'mrk_a' },
    );
    expect(from('198.51.100.1', [wide], ['192.0.2.0/24'])).toMatchObject({
      level: 'grant',
      changes: [{ kind: 'change-condition', condition: 'networks' }],
    });
    expect(
      from('192.0.2.1', [ceiling({ networks: ['198.51.100.0/24'] }), wide], ['192.0.2.0/24']),
    ).toMatchObject({ level: 'folder', changes: [{ kind: 'raise-ceiling', limit: 'networks' }] });
  });

  it('says where two things must change, and where every way in must be closed', () => {
    expect(
      explained({ ceilings: [ceiling({ days: 5 })], grants: [grant({ until: NOW - DAY })] })
        .why.changes.map(({ kind }) => kind)
        .sort(),
    ).toEqual(['extend-grant', 'raise-ceiling']);
    const two = explained({
      grants: [grant(), grant({}, { id: 'grt_b', addressee: { kind: 'group', id: 'grp_a' } })],
    });
    expect(two.why.changes).toEqual([
      { kind: 'revoke-grant', grant: 'grt_a' },
      { kind: 'revoke-grant', grant: 'grt_b' },
    ]);
    expect(explained({ keyDestroyed: true }).why).toMatchObject({ level: 'document', changes: [] });
  });

  it('keeps what it promises: done, each change turns the answer round, and none of them is needless', () => {
    const opens = (at: Case): boolean => !('reason' in naiveDecision(at.policy, at.asking));
    const gives = (at: Case, right: Right): boolean => {
      const answer = naiveDecision(at.policy, at.asking);
      return !('reason' in answer) && answer.rights.includes(right);
    };
    let [refusals, withheld] = [0, 0];
    const broken: string[] = [];
    /** All of it together turns the answer round; all but one of it does not. */
    const hold = (
      name: string,
      at: Case,
      changes: readonly Change[],
      has: boolean,
      test: (at: Case) => boolean,
    ): void => {
      const all = test(changedBy(at, changes)) === !has;
      const each = changes.every(
        (left) =>
          test(
            changedBy(
              at,
              changes.filter((other) => other !== left),
            ),
          ) === has,
      );
      if (!all || !each) broken.push(`${name}: ${JSON.stringify(changes)}`);
    };
    for (let seed = 0; seed < 2_000; seed++) {
      const at: Case = randomCase(seed);
      const { decision, why, rights } = explain(compileDocument(at.policy), at.asking);
      const could = decision.outcome === 'granted';
      const nothingHelps = at.policy.keyDestroyed || at.asking.recipient === null;
      if (why.changes.length === 0 && nothingHelps) continue;
      refusals += could ? 0 : 1;
      hold(`open, seed ${String(seed)}`, at, why.changes, could, opens);
      for (const { right, verdict, reason } of could ? rights : []) {
        withheld += verdict?.granted === true ? 0 : 1;
        hold(
          `${right}, seed ${String(seed)}`,
          at,
          reason.changes,
          verdict?.granted === true,
          (then) => gives(then, right),
        );
      }
    }
    expect(broken).toEqual([]);
    expect([refusals > 1_000, withheld > 1_000]).toEqual([true, true]);
  });
});
