import type { EventMark, GrantRow } from '@/contracts/dispatch';
import { groupBy } from '@/core/base/group';
import { conditionLines } from '@/core/policy/condition-lines';
import { rightsLine } from '@/core/policy/rights-line';
import { reachLines } from '@/core/reach/lines';
import { personName, underCeilings } from '@/ui/grants/grant-words';
import type { BoardLine } from '@/ui/reach/reach-board';
import { whoLine } from '@/ui/words/addressee-words';

/** A line for each person, with their name, what they may and whether that can be changed. */
export function toLines(grants: readonly GrantRow[], marks: readonly EventMark[]): BoardLine[] {
  const effective = grants.map(underCeilings);
  const byPerson = groupBy(effective, (grant) => grant.recipientId);
  return reachLines(effective, marks).map((line) => {
    const own = byPerson.get(line.recipientId) ?? [];
    const [first] = own;
    const may = [...new Set(own.map((grant) => rightsLine(grant.rights, grant.prints)))];
    return {
      ...line,
      name: first === undefined ? '' : personName(first),
      under: first === undefined ? '' : whoLine(first),
      may: may.length === 1 ? (may[0] ?? '') : 'differs',
      conditions: [
        ...new Set(own.flatMap((grant) => conditionLines(grant.conditions, 'their zone'))),
      ],
      mayChange: own.every((grant) => grant.mayChange),
    };
  });
}
