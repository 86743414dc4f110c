import Link from 'next/link';
import type { GrantRow } from '@/contracts/dispatch';
import { groupBy } from '@/core/base/group';
import { standsForMany } from '@/core/policy/addressee';
import { stateOf } from '@/ui/grants/grant-words';
import { audienceOf } from '@/ui/words/addressee-words';
import { Moment } from '@/ui/time/moment';
import { EntriesFigure } from '@/ui/words/entries-figure';

/** Where a document went: each dispatch that carried it, and what came of it. */
export function WentPanel({
  grants,
  now,
}: {
  readonly grants: readonly GrantRow[];
  readonly now: number;
}) {
  const dispatches = [...groupBy(grants, (grant) => grant.dispatchId).values()];
  return (
    <section className="stack" aria-label="Dispatches">
      <h2>Dispatches</h2>
      {dispatches.length === 0 && <p className="quiet">Not dispatched yet.</p>}
      {dispatches.map((own) => {
        const [first] = own;
        if (first === undefined) return null;
        const opens = own.reduce((sum, grant) => sum + grant.opens, 0);
        const open = own.filter((grant) => stateOf(grant, now) === 'live');
        const live = open.filter(({ kind }) => !standsForMany(kind)).length;
        return (
          <p key={first.dispatchId}>
            <Link href={`/dispatches/${first.dispatchId}`}>{first.dispatchSubject}</Link>{' '}
            <span className="figure quiet nowrap">{first.dispatchReference}</span>
            <br />
            <span className="quiet">
              <Moment at={first.sentAt} /> to {audienceOf(own)},{' '}
              {live === 0
                ? open.length === 0
                  ? 'none can open it now'
                  : 'who can open it now is unknown'
                : `${String(live)} can open it now`}
              ;{' '}
              <EntriesFigure
                n={opens}
                of={{ document: first.documentId, dispatch: first.dispatchId, kind: 'opened' }}
              />{' '}
              {opens === 1 ? 'open' : 'opens'}
            </span>
          </p>
        );
      })}
    </section>
  );
}
