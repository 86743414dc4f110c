import type { DispatchDetail, GrantRow, HandedOver } from '@/contracts/dispatch';
import { groupBy } from '@/core/base/group';

/** Somebody who has a link of their own into a dispatch, with what was mailed to them and opened. */
export type Handed = {
  readonly grant: GrantRow;
  /** The last message to them; `null`: nothing was mailed. */
  readonly mail: HandedOver | null;
  readonly opens: number;
  readonly lastOpen: number | null;
};

/** Whether the message to them did not get there. */
export function isMailTrouble({ mail }: Handed): boolean {
  return mail !== null && mail.state !== 'delivered' && mail.state !== 'waiting';
}

/** Everybody with a link of their own, those whose message did not get there first. */
export function handedTo({ grants, mail }: Pick<DispatchDetail, 'grants' | 'mail'>): Handed[] {
  const mailed = new Map(mail.map((each) => [each.recipientId, each]));
  const own = grants.filter(
    ({ parent, passedOnBy, recipientId }) =>
      parent === null || passedOnBy !== null || mailed.has(recipientId),
  );
  const all = [...groupBy(own, ({ recipientId }) => recipientId)].flatMap(([id, theirs]) =>
    theirs.slice(0, 1).map((grant) => ({
      grant,
      mail: mailed.get(id) ?? null,
      opens: theirs.reduce((sum, { opens }) => sum + opens, 0),
      lastOpen: theirs.reduce<number | null>(
        (last, each) => (each.lastOpen === null ? last : Math.max(last ?? 0, each.lastOpen)),
        null,
      ),
    })),
  );
  return all.toSorted((a, b) => Number(isMailTrouble(b)) - Number(isMailTrouble(a)));
}
