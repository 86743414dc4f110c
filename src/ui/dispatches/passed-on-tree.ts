import type { GrantRow } from '@/contracts/dispatch';
import { groupBy } from '@/core/base/group';

/** A grant in the order of a tree, with how deep it stands and how many stand below it. */
export type TreeRow = { readonly grant: GrantRow; readonly depth: number; readonly below: number };

/**
 * Grants from which others came, each followed by those: what was passed on, and who came in by a
 * group, a domain or an open link and passed it on. What nothing came of is left out.
 */
export function passedOnTree(grants: readonly GrantRow[]): TreeRow[] {
  const children = groupBy(
    grants.filter(({ parent }) => parent !== null),
    ({ parent }) => parent,
  );
  const known = new Set(grants.map(({ id }) => id));
  const rowsOf = (grant: GrantRow, depth: number): TreeRow[] => {
    const below = (children.get(grant.id) ?? []).flatMap((child) => rowsOf(child, depth + 1));
    return [{ grant, depth, below: below.length }, ...below];
  };
  const hasPassed = (rows: readonly TreeRow[]): boolean =>
    rows.some(({ grant }) => grant.passedOnBy !== null);
  return grants
    .filter(({ parent }) => parent === null || !known.has(parent))
    .map((root) => rowsOf(root, 0))
    .filter(hasPassed)
    .flat();
}
