import type { GrantRow } from '@/contracts/dispatch';
import { groupBy } from '@/core/base/group';
import { personName } from '@/ui/grants/grant-words';

type Linked = Pick<GrantRow, 'recipientId' | 'name' | 'address' | 'link'>;

/**
 * A line for each recipient whose link is known here, for a table or a mail: name, email address
 * and link, with tabs between.
 */
export function linkList(grants: readonly Linked[]): string {
  const lines = [...groupBy(grants, (grant) => grant.recipientId).values()].flatMap(([grant]) =>
    grant === undefined || grant.link === ''
      ? []
      : [[personName(grant), grant.address, grant.link].join('\t')],
  );
  return lines.join('\n');
}
