import fc from 'fast-check';
import { expect, test } from 'vitest';
import { changedRights, type HeldRights } from '@/core/policy/changed-rights';
import { brokenDependencies, OFFERED_RIGHTS, standingTerms } from '@/core/policy/rights';

const rights = fc
  .subarray([...OFFERED_RIGHTS])
  .map((some) => [...new Set(['read' as const, ...some])]);
const prints = fc.option(fc.integer({ min: 1, max: 9 }));
const held = fc
  .record({ rights, prints })
  .map((each): HeldRights => standingTerms({ ...each, from: null, until: null }))
  .map(({ rights: some, prints: most }) => ({ rights: some, prints: most }));

test('printing is given beside what somebody has, with the number for those who had none', () => {
  const change = { how: 'add', rights: ['read', 'print'], prints: 2 } as const;
  const copies: HeldRights = { rights: ['read', 'copy'], prints: null };
  expect(changedRights(copies, change)).toEqual({ rights: ['read', 'copy', 'print'], prints: 2 });
  const printing: HeldRights = { rights: ['read', 'print'], prints: 5 };
  expect(changedRights(printing, change)).toEqual({ rights: ['read', 'print'], prints: 5 });
});

test('keeping brings along what it rests on, and goes with any of it', () => {
  const reading: HeldRights = { rights: ['read', 'print'], prints: 3 };
  const keeping = changedRights(reading, { how: 'add', rights: ['read', 'keep'], prints: null });
  expect(keeping).toEqual({ rights: ['read', 'copy', 'print', 'keep'], prints: null });
  expect(changedRights(keeping, { how: 'take', rights: ['copy'] })).toEqual({
    rights: ['read', 'print'],
    prints: null,
  });
});

test('adding takes nothing away, taking gives nothing, and what is left can stand', () => {
  fc.assert(
    fc.property(held, rights, prints, (before, some, most) => {
      const added = changedRights(before, { how: 'add', rights: some, prints: most });
      expect(added.rights).toEqual(expect.arrayContaining([...before.rights, ...some]));
      const taken = changedRights(before, { how: 'take', rights: some });
      expect(before.rights).toEqual(expect.arrayContaining([...taken.rights]));
      expect(taken.rights).toContain('read');
      for (const after of [added, taken])
        expect(brokenDependencies({ ...after, from: null, until: null })).toEqual([]);
    }),
  );
});
