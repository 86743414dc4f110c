import { describe, expect, test } from 'vitest';
import {
  folderMarking,
  type FolderNode,
  wayText,
  wayTo,
  withThoseBelow,
  wouldLoop,
} from '@/core/content/folders';

const folder = (id: string, parentId: string | null): FolderNode => ({
  id: `fld_${id}`,
  parentId: parentId === null ? null : `fld_${parentId}`,
  name: id.toUpperCase(),
});
const tree = [
  folder('a', null),
  folder('b', 'a'),
  folder('c', 'b'),
  folder('d', 'a'),
  folder('e', null),
];

describe('folders', () => {
  test('know the way to the top', () => {
    expect(wayText(tree, 'fld_c')).toBe('A / B / C');
    expect(wayTo(tree, null)).toEqual([]);
    expect(wayTo(tree, 'fld_gone')).toEqual([]);
  });

  test('cannot be moved into themselves or below', () => {
    expect(wouldLoop(tree, 'fld_a', 'fld_c')).toBe(true);
    expect(wouldLoop(tree, 'fld_a', 'fld_a')).toBe(true);
    expect(wouldLoop(tree, 'fld_c', 'fld_e')).toBe(false);
    expect(wouldLoop(tree, 'fld_a', null)).toBe(false);
  });

  test('hold what is below them, however the list is ordered', () => {
    expect([...withThoseBelow([...tree].reverse(), 'fld_a')].sort()).toEqual([
      'fld_a',
      'fld_b',
      'fld_c',
      'fld_d',
    ]);
    expect([...withThoseBelow(tree, 'fld_e')]).toEqual(['fld_e']);
  });

  test('that point at each other end a walk all the same', () => {
    expect(wayTo([folder('x', 'y'), folder('y', 'x')], 'fld_x').length).toBeLessThan(5);
  });

  test('mark new documents as the nearest of them says, or not at all', () => {
    const marked = tree.map((each) => ({
      ...each,
      markingId: each.id === 'fld_a' ? 'bidders' : each.id === 'fld_c' ? 'board' : null,
    }));
    const at = (id: FolderNode['id'] | null) => folderMarking(marked, id);
    expect(['fld_c', 'fld_b', 'fld_a', 'fld_e'].map((id) => at(id as FolderNode['id']))).toEqual([
      'board',
      'bidders',
      'bidders',
      null,
    ]);
    expect(at(null)).toBeNull();
  });
});
