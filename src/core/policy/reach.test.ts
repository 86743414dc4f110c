import { describe, expect, it } from 'vitest';
import { compileDocument } from '@/core/policy/compile';
import { decide } from '@/core/policy/decide';
import { reach } from '@/core/policy/reach';
import { randomCase } from '../../../tests/support/random-policy';

const CASES = 700;

describe('reach', () => {
  it('is what the decision is, and each of its routes is a way in by itself', () => {
    let reached = 0;
    for (let seed = 0; seed < CASES; seed++) {
      const { policy, asking } = randomCase(seed);
      const found = reach(compileDocument(policy), asking);
      const decision = decide(compileDocument(policy), asking);
      expect(found.opens).toBe(decision.outcome === 'granted');
      if (!found.opens) continue;
      reached++;
      expect(found.routes).toContain(decision.outcome === 'granted' ? decision.charged : '');
      // Every other grant revoked, each route still opens, as long as what it was passed on from stands.
      const chain = (id: string): string[] => {
        const parent = policy.grants.find((grant) => grant.id === id)?.parent;
        return parent == null ? [id] : [id, ...chain(parent)];
      };
      for (const route of found.routes) {
        const kept = new Set(chain(route));
        expect(
          reach(
            compileDocument({
              ...policy,
              grants: policy.grants.map((grant) => ({
                ...grant,
                revoked: grant.revoked || !kept.has(grant.id),
              })),
            }),
            asking,
          ).opens,
        ).toBe(true);
      }
    }
    expect(reached).toBeGreaterThan(100);
  });
});
