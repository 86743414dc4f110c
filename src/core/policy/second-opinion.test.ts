import { isDeepStrictEqual } from 'node:util';
import { describe, expect, it } from 'vitest';
import { naiveDecision, type NaiveAnswer } from '../../../tests/support/naive-policy';
import { randomCase } from '../../../tests/support/random-policy';
import { compileDocument, type CompiledGrant } from '@/core/policy/compile';
import type { PassOn } from '@/core/policy/conditions';
import { decide, type Decision } from '@/core/policy/decide';
import { RIGHTS, type Right } from '@/core/policy/rights';

const CASES = Number(process.env['POLICIES'] ?? 25_000);

function plain(decision: Decision): NaiveAnswer {
  if (decision.outcome === 'refused') return { reason: decision.reason };
  const {
    charged,
    until,
    rights,
    obligations: { offline, captureDeterrent: deterrent, passOn },
  } = decision;
  return {
    charged,
    until,
    rights: RIGHTS.filter((right) => rights[right].granted),
    printsLeft: rights.print.granted ? rights.print.printsLeft : null,
    offline,
    deterrent,
    passOn,
  };
}

function allowed(
  seed: number,
  change: (made: ReturnType<typeof randomCase>) => ReturnType<typeof randomCase> = (made) => made,
): Set<Right> {
  const { policy, asking } = change(randomCase(seed));
  const answer = plain(decide(compileDocument(policy), asking));
  return new Set('reason' in answer ? [] : answer.rights);
}

function expectWithin(grant: CompiledGrant, parent: CompiledGrant): void {
  expect([...grant.rights].every((right) => parent.rights.has(right))).toBe(true);
  expect(grant.until).toBeLessThanOrEqual(parent.until);
  expect(grant.bounds.offline ?? -1).toBeLessThanOrEqual(parent.bounds.offline ?? -1);
  expect(grant.bounds.captureDeterrent || !parent.bounds.captureDeterrent).toBe(true);
  if (grant.bounds.passOn !== null) expectPassesOnLess(grant.bounds.passOn, parent.bounds.passOn);
}

function expectPassesOnLess(own: PassOn, above: PassOn | null): void {
  expect(own.people).toBeLessThanOrEqual(above?.people ?? 0);
  expect(own.steps).toBeLessThan(above?.steps ?? 0);
  expect(
    above?.domains == null || own.domains?.every((domain) => above.domains?.includes(domain)),
  ).toBe(true);
}

describe('a policy', () => {
  it(
    `is decided as a second implementation decides it, ${String(CASES)} times`,
    { timeout: 120_000 },
    () => {
      let granted = 0;
      const reasons = new Set<string>();
      for (let seed = 0; seed < CASES; seed++) {
        const { policy, asking } = randomCase(seed);
        const [ours, naive] = [
          plain(decide(compileDocument(policy), asking)),
          naiveDecision(policy, asking),
        ];
        if (!isDeepStrictEqual(ours, naive))
          throw new Error(
            `policy ${String(seed)}: ${JSON.stringify(ours)} here, ${JSON.stringify(naive)} there`,
          );
        if ('reason' in ours) reasons.add(ours.reason);
        else granted++;
      }
      // Else the random policies would all be of one kind, and agreeing on them would say little.
      expect(granted).toBeGreaterThan(CASES / 20);
      expect(reasons.size).toBe(18);
    },
  );

  const SOME = 4_000;
  const subset = (few: Set<Right>, many: Set<Right>): boolean =>
    [...few].every((right) => many.has(right));

  it('gets no more by a ceiling', () => {
    for (let seed = 0; seed < SOME; seed++)
      expect(
        subset(
          allowed(seed),
          allowed(seed, ({ policy, asking }) => ({ policy: { ...policy, ceilings: [] }, asking })),
        ),
      ).toBe(true);
  });

  it('gets no more by losing a grant', () => {
    for (let seed = 0; seed < SOME; seed++) {
      const all = allowed(seed);
      for (const [index] of randomCase(seed).policy.grants.entries())
        expect(
          subset(
            allowed(seed, ({ policy, asking }) => ({
              policy: { ...policy, grants: policy.grants.filter((_, at) => at !== index) },
              asking,
            })),
            all,
          ),
        ).toBe(true);
    }
  });

  it('grants nothing to somebody who is blocked', () => {
    for (let seed = 0; seed < SOME; seed++)
      expect(
        allowed(seed, ({ policy, asking }) => ({
          policy,
          asking: {
            ...asking,
            recipient: { id: 'rcp_a', groups: ['grp_a'], domain: 'quill.example', blocked: true },
          },
        })).size,
      ).toBe(0);
  });

  it('is the same in whatever order its parts come', () => {
    for (let seed = 0; seed < SOME; seed++) {
      const { policy, asking } = randomCase(seed);
      expect(
        decide(
          compileDocument({
            ...policy,
            grants: policy.grants.toReversed(),
            ceilings: policy.ceilings.toReversed(),
          }),
          asking,
        ),
      ).toEqual(decide(compileDocument(policy), asking));
    }
  });

  it('gives a child no more than its parent, nor longer', () => {
    for (let seed = 0; seed < SOME; seed++) {
      const { policy } = randomCase(seed);
      const compiled = new Map(
        Object.values(compileDocument(policy).byAddressee)
          .flatMap((lists) => [...lists.values()].flat())
          .map((grant) => [grant.facts.id, grant]),
      );
      for (const grant of compiled.values()) {
        if (grant.facts.parent == null) continue;
        const parent = compiled.get(grant.facts.parent);
        expect(parent !== undefined || grant.rights.size === 0).toBe(true);
        if (parent !== undefined && grant.rights.size > 0) expectWithin(grant, parent);
      }
    }
  });
});
