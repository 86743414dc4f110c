import type { GroupId } from '@/core/base/ids';
import { termsText, type Terms } from '@/core/policy/rights';
import type { GridRow } from '@/ui/recipients/grid-view';

/** What a row has of its own, where it differs from what all have in common. */
function ownOf({ row, terms }: GridRow, common: Terms) {
  const isCommon = termsText(terms) === termsText(common);
  return {
    ...(isCommon ? {} : { terms, kept: row.saved ?? null }),
    ...(row.without.length === 0 ? {} : { without: row.without }),
  };
}

/** Whom a sheet addresses, as a route takes it. */
export function addresseesOf(rows: readonly GridRow[], common: Terms) {
  const of = (kind: GridRow['row']['kind']) => rows.filter(({ row }) => row.kind === kind);
  const [link] = of('link');
  return {
    recipients: of('person').map((each) => ({
      address: each.row.key,
      name: each.row.name,
      organisation: each.row.organisation,
      ...ownOf(each, common),
    })),
    groups: of('group').map((each) => ({ id: each.row.key as GroupId, ...ownOf(each, common) })),
    domains: of('domain').map((each) => ({ domain: each.row.key, ...ownOf(each, common) })),
    openLink: link === undefined ? null : ownOf(link, common),
  };
}
