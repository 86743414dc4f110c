import { describe, expect, it } from 'vitest';
import { randomCase } from '../../../tests/support/random-policy';
import type { StaffId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import { NO_LIMITS, type Ceiling, type Limits } from '@/core/policy/ceiling';
import { compileDocument, type DocumentPolicy, type GrantFacts } from '@/core/policy/compile';
import { ANYWHERE, UNUSED } from '@/core/policy/conditions';
import { decide, type Asking } from '@/core/policy/decide';
import { explain } from '@/core/policy/explain';
import { impactOn } from '@/core/policy/impact';
import { RIGHTS, type Terms } from '@/core/policy/rights';

const NOW = 1_800_000_000_000;
const IDA: StaffId = 'stf_00000000000000000001';

function grant(terms: Partial<Terms> = {}, over: Partial<GrantFacts> = {}): GrantFacts {
  return { id: 'grt_a', addressee: { kind: 'person', id: 'rcp_a' }, revoked: false, used: UNUSED, givenBy: IDA, givenAt: NOW - 10 * DAY, terms: { rights: ['read', 'print'], from: null, until: NOW + 30 * DAY, prints: null, ...terms }, ...over };
}
function ceiling(limits: Partial<Limits>, over: Partial<Ceiling> = {}): Ceiling {
  return { level: 'folder', subject: 'fld_a', setBy: 'stf_b', setAt: NOW - DAY, limits: { ...NO_LIMITS, ...limits }, ...over };
}
const asking: Asking = { identity: 'proven', recipient: { id: 'rcp_a', blocked: false, groups: ['grp_a'] }, at: { now: NOW, country: ANYWHERE, network: ANYWHERE, zone: 'UTC', device: ANYWHERE } };
const explained = (over: Partial<DocumentPolicy>) => explain(compileDocument({ id: 'doc_a', revoked: false, keyDestroyed: false, ceilings: [], grants: [grant()], ...over }), asking);
const reasonFor = (over: Partial<DocumentPolicy>, right: 'print' | 'keep') => explained(over).rights.find((each) => each.right === right)?.reason;

describe('explain', () => {
  it('says which ceiling takes a right, who set it and when', () => {
    expect(reasonFor({ ceilings: [ceiling({ rights: ['read'] })] }, 'print')).toEqual({ level: 'folder', subject: 'fld_a', setBy: 'stf_b', setAt: NOW - DAY, remedy: 'raise-ceiling' });
  });

  it('says that the grant does not give it, where no ceiling is in the way', () => {
    expect(reasonFor({ grants: [grant({ rights: ['read'] })] }, 'print')).toEqual({ level: 'grant', subject: 'grt_a', setBy: IDA, setAt: NOW - 10 * DAY, remedy: 'give-right' });
  });

  it('says whose limit used the prints up', () => {
    const used = { ...UNUSED, prints: 2 };
    expect(reasonFor({ grants: [grant({ prints: 2 }, { used })] }, 'print')).toMatchObject({ level: 'grant', remedy: 'give-more-prints' });
    expect(reasonFor({ grants: [grant({}, { used })], ceilings: [ceiling({ prints: 1 }, { level: 'marking', subject: 'mrk_a' })] }, 'print')).toMatchObject({ level: 'marking', subject: 'mrk_a', remedy: 'raise-ceiling' });
  });

  it('says that a ceiling, not the grant, ended it', () => {
    const { decision, why, ways } = explained({ ceilings: [ceiling({ days: 7 }, { level: 'organisation', subject: '' })] });
    expect(decision).toMatchObject({ outcome: 'refused', reason: 'expired' });
    expect(why).toMatchObject({ level: 'organisation', setBy: 'stf_b', remedy: 'raise-ceiling' });
    expect(ways).toMatchObject([{ standing: 'expired', until: NOW - 3 * DAY, endedBy: { from: 'ceiling' } }]);
  });

  it('lists the other ways that a person still has', () => {
    const { decision, ways } = explained({ grants: [grant({}, { revoked: true }), grant({ rights: ['read'] }, { id: 'grt_b', addressee: { kind: 'group', id: 'grp_a' } })] });
    expect(decision.outcome).toBe('granted');
    expect(ways.map(({ grant: id, standing, addressee }) => [id, standing, addressee.kind])).toEqual([['grt_b', 'live', 'group'], ['grt_a', 'revoked', 'person']]);
  });

  it('says the same as the decision, whatever the policy', () => {
    for (let seed = 0; seed < 3_000; seed++) {
      const { policy, asking: whoever } = randomCase(seed);
      const document = compileDocument(policy);
      const { decision, ways, rights } = explain(document, whoever);
      expect(decision).toEqual(decide(document, whoever));
      expect(ways[0]?.standing === 'live' || decision.outcome === 'refused').toBe(true);
      expect(rights.map(({ right }) => right)).toEqual(RIGHTS);
      const taken = rights.filter(({ verdict }) => verdict?.granted === false && verdict.why === 'above-ceiling');
      expect(taken.every(({ reason }) => reason.remedy === 'raise-ceiling')).toBe(true);
    }
  });
});

describe('impact', () => {
  const { terms, givenAt } = grant();
  it('names what is lost, and what ends', () => {
    expect(impactOn(terms, givenAt, [], [ceiling({ rights: ['read'] })], NOW)).toEqual({ lost: ['print'], gained: [], until: null, ends: false, revives: false, other: false });
    expect(impactOn(terms, givenAt, [], [ceiling({ days: 7 })], NOW)).toMatchObject({ lost: [], until: { before: NOW + 30 * DAY, after: NOW - 3 * DAY }, ends: true });
  });

  it('names what comes back when a ceiling is raised', () => {
    expect(impactOn(terms, givenAt, [ceiling({ days: 7, rights: ['read'] })], [], NOW)).toMatchObject({ gained: ['print'], revives: true, ends: false });
  });

  it('leaves out what is over either way, and what stays as it is', () => {
    expect(impactOn({ ...terms, until: NOW - 1 }, givenAt, [], [ceiling({ rights: ['read'] })], NOW)).toBeNull();
    expect(impactOn(terms, givenAt, [], [ceiling({ days: 4000, rights: ['read', 'print', 'copy'] })], NOW)).toBeNull();
  });

  it('tells of every grant that decides otherwise', () => {
    for (let seed = 0; seed < 3_000; seed++) {
      const { policy } = randomCase(seed);
      const [first] = policy.grants;
      if (first?.terms.from !== null) continue;
      const open: GrantFacts = { ...first, parent: null, revoked: false, used: UNUSED, addressee: { kind: 'person', id: 'rcp_a' }, terms: { rights: first.terms.rights, from: null, until: first.terms.until, prints: first.terms.prints } };
      const rights = (ceilings: readonly Ceiling[]): string[] => {
        const decision = decide(compileDocument({ ...policy, revoked: false, keyDestroyed: false, grants: [open], ceilings }), { ...asking, at: { ...asking.at, now: NOW } });
        return decision.outcome === 'refused' ? [] : RIGHTS.filter((right) => decision.rights[right].granted);
      };
      const same = JSON.stringify(rights([])) === JSON.stringify(rights(policy.ceilings));
      expect(same || impactOn(open.terms, open.givenAt, [], policy.ceilings, NOW) !== null, `seed ${String(seed)}`).toBe(true);
    }
  });
});
