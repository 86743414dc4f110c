'use client';

import Link from 'next/link';
import type { PersonDetail } from '@/contracts/people';
import { counted } from '@/core/base/counted';
import { useHolds } from '@/ui/shell/permissions';
import { Moment } from '@/ui/time/moment';
import { EntriesFigure } from '@/ui/words/entries-figure';

function answer({ leftAt, blocked }: PersonDetail, canOpen: number): string {
  if (leftAt !== null) return 'Has left, so they can open nothing.';
  if (blocked) return 'Blocked, so they can open nothing.';
  if (canOpen === 0) return 'Can open nothing now.';
  return `Can open ${counted(canOpen, 'document')} now.`;
}

function times(n: number): string {
  return n === 1 ? 'once' : `${String(n)} times`;
}

/** Who somebody is, what they can open, and what the ledger says of them. */
export function PersonHead({
  person,
  canOpen,
}: {
  readonly person: PersonDetail;
  readonly canOpen: number;
}) {
  const readsRecord = useHolds('read-own-record');
  const dispatches = useHolds('dispatch');
  const { id, address, organisation, refusals, byTheirLinks } = person;
  const name = person.name === '' ? address : person.name;
  return (
    <>
      <h2>
        {address}
        {organisation === '' ? '' : ` · ${organisation}`}
      </h2>
      <p className="answer">
        {name}. {answer(person, canOpen)}
      </p>
      <p>
        <Opened person={person} />;{' '}
        {refusals === 0 ? (
          'never refused'
        ) : (
          <span className="magenta">refused {times(refusals)}</span>
        )}
        .
      </p>
      {byTheirLinks > 0 && (
        <p className="magenta">
          Somebody else was refused {times(byTheirLinks)} by a link sent to {name}. It may have been
          forwarded.
        </p>
      )}
      {readsRecord && (
        <p>
          <Link href={`/ledger?recipient=${id}`}>Show in ledger</Link>
          {dispatches && (
            <>
              {' · '}
              <Link href={`/compose?to=${encodeURIComponent(address)}`}>Compose a dispatch</Link>
            </>
          )}
        </p>
      )}
    </>
  );
}

function Opened({ person: { id, opens, lastOpen } }: { readonly person: PersonDetail }) {
  if (opens === 0) return 'Never opened anything';
  return (
    <>
      <EntriesFigure n={opens} of={{ recipient: id, kind: 'opened' }} />{' '}
      {opens === 1 ? 'open' : 'opens'}
      {lastOpen !== null && (
        <>
          , last <Moment at={lastOpen} />
        </>
      )}
    </>
  );
}
