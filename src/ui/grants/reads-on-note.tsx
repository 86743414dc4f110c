'use client';

import type { ReadsOn } from '@/contracts/access';
import type { GrantRow } from '@/contracts/dispatch';
import { Note } from '@/ui/shell/notice';
import { Moment } from '@/ui/time/moment';

/** Names shown; there may be many. */
const MOST_SHOWN = 8;

/** Whom ending access does not shut out at once, since their device reads on without asking. */
export function ReadsOnNote({ people }: { readonly people: readonly ReadsOn[] }) {
  if (people.length === 0) return null;
  return (
    <Note>
      <b>Reads on, on their own machine without asking:</b>
      <ul className="points">
        {people.slice(0, MOST_SHOWN).map(({ name, until }, i) => (
          // Two people may have one name.
          <li key={i}>
            {name}, until <Moment at={until} />
          </li>
        ))}
      </ul>
      {people.length > MOST_SHOWN && <p>and {people.length - MOST_SHOWN} more.</p>}
    </Note>
  );
}

/** What an end that is moved does not end at that moment. `end` null: nothing ends. */
export function ReadsBeyond({
  grants,
  end,
}: {
  readonly grants: readonly Pick<GrantRow, 'offline'>[];
  readonly end: number | null;
}) {
  const beyond = grants.flatMap(({ offline }) =>
    end !== null && offline !== null && offline.until > end ? [offline.until] : [],
  );
  if (beyond.length === 0) return null;
  return (
    <p className="lamp">
      {beyond.length === 1 ? 'A device reads' : 'Devices read'} on without asking until{' '}
      <Moment at={Math.max(...beyond)} /> at the latest.
    </p>
  );
}
