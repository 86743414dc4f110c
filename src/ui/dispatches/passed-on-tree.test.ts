import { expect, test } from 'vitest';
import type { GrantRow } from '@/contracts/dispatch';
import { passedOnTree } from '@/ui/dispatches/passed-on-tree';

function grant(id: string, parent: string | null, passedOnBy: string | null): GrantRow {
  return {
    id: `grt_${id}`,
    parent: parent === null ? null : `grt_${parent}`,
    passedOnBy,
  } as GrantRow;
}
const told = (grants: readonly GrantRow[]) =>
  passedOnTree(grants).map(({ grant: { id }, depth, below }) => [id, depth, below]);

test('what was passed on stands below the grant it came from, however deep, with how many are below', () => {
  const grants = [
    grant('deep', 'per', 'Per'),
    grant('mira', null, null),
    grant('alone', null, null),
    grant('per', 'mira', 'Mira'),
    grant('siv', 'mira', 'Mira'),
  ];
  expect(told(grants)).toEqual([
    ['grt_mira', 0, 3],
    ['grt_per', 1, 1],
    ['grt_deep', 2, 0],
    ['grt_siv', 1, 0],
  ]);
});

test('who came in by a group is shown only where they passed something on', () => {
  const members = [grant('group', null, null), grant('a', 'group', null)];
  expect(told(members)).toEqual([]);
  expect(told([...members, grant('b', 'a', 'A')])).toHaveLength(3);
});
