import { expect, test } from 'vitest';
import { KINDS, actionsOf, kindOf } from '@/core/insight/kinds';
import { ACTIONS, OUTCOMES } from '@/core/ledger/entry';

test('every entry is of exactly one kind, and its kind finds it again', () => {
  for (const action of ACTIONS) {
    for (const outcome of OUTCOMES) {
      const kind = kindOf(action, outcome);
      const found = KINDS.filter(
        (each) =>
          (each === 'refused') === (outcome === 'refused') && actionsOf(each).includes(action),
      );
      expect(found).toEqual([kind]);
    }
  }
});
