import type { DocumentRow } from '@/contracts/document';
import type { ComposeStart } from '@/contracts/draft';
import type { GroupId } from '@/core/base/ids';
import { addressOfGroup } from '@/core/policy/addressee';
import type { Parents } from '@/core/policy/levels';
import type { Terms } from '@/core/policy/rights';
import { beyondLimits, beyondLines } from '@/core/policy/sender-limits';
import type { GridRow } from '@/ui/recipients/grid-view';

const OPEN_LINK = 'anyone with the link';

function addressOf({ row: { kind, key } }: GridRow): string {
  if (kind === 'link') return OPEN_LINK;
  return kind === 'group' ? addressOfGroup(key as GroupId) : key;
}

/** What of a dispatch goes beyond its sender's limits, with who set them and whom to ask. */
export function limitProblems(
  { limits, now }: Pick<ComposeStart, 'limits' | 'now'>,
  parents: Parents,
  {
    rows,
    documents,
    common,
  }: {
    readonly rows: readonly GridRow[];
    readonly documents: readonly DocumentRow[];
    readonly common: Terms;
  },
): string[] {
  if (limits === null) return [];
  const names = new Map(
    rows.flatMap((each) =>
      each.row.kind === 'group' ? [[addressOf(each), `the group ${each.row.name}`] as const] : [],
    ),
  );
  const beyond = beyondLimits(
    limits.limits,
    {
      addresses: rows.map(addressOf),
      documents,
      terms: rows.length === 0 ? [common] : rows.map(({ terms }) => terms),
      givenAt: now,
    },
    parents,
  );
  return beyondLines(
    beyond,
    (address) =>
      names.get(address) ?? (address.startsWith('@') ? `everyone at ${address.slice(1)}` : address),
  ).map((line) => `${line} ${limits.setBy} set it so: ask them.`);
}
