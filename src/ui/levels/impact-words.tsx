'use client';

import Link from 'next/link';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { ImpactFound, Touched } from '@/contracts/impact';
import { counted } from '@/core/base/counted';
import { groupBy } from '@/core/base/group';
import { audience } from '@/ui/words/addressee-words';
import { verbList } from '@/ui/words/rights-words';
import { Moment } from '@/ui/time/moment';

/** Who it is: `3 people`, `3 people, and anyone who comes by a domain or a link,`. */
function who({ people, unknown }: Touched): string {
  if (!unknown) return audience(people, false);
  return people === 0
    ? 'anyone who comes by a domain or a link'
    : `${audience(people, false)}, and anyone who comes by a domain or a link,`;
}

function line(touched: Touched, words: string): string[] {
  if (touched.people === 0 && !touched.unknown) return [];
  const sentence = `${who(touched)} ${words}.`;
  return [sentence.charAt(0).toUpperCase() + sentence.slice(1)];
}

function sentences(
  { rights, endNow, endSooner, endLater, revive, other }: ImpactFound,
  otherWords: string,
): string[] {
  return [
    ...line(endNow, 'would lose access at once'),
    ...line(endSooner, 'would have access for a shorter time'),
    ...rights.flatMap(({ right, lost, gained }) => [
      ...line(lost, `could no longer ${verbList([right])}`),
      ...line(gained, `could also ${verbList([right])}`),
    ]),
    ...line(revive, 'would have access again'),
    ...line(endLater, 'would have access for longer'),
    ...line(other, otherWords),
  ];
}

/** What happens to whom: documents with the same are told together. */
function effectOf({
  recipient,
  lost,
  gained,
  after,
  endMoves,
  ends,
  readsOn,
}: ImpactFound['rows'][number]): string {
  return JSON.stringify([recipient, lost, gained, endMoves ? after : null, ends, readsOn]);
}

/** Whom a change would touch, in numbers and names. */
export function ImpactWords({
  impact,
  idle = [],
  other = 'would have other limits on how often, from where or by what proof',
  untouched = 'Nobody is affected at present.',
}: {
  readonly impact: ImpactFound;
  readonly idle?: readonly string[];
  /** What happens to those whose rights and end stay. */
  readonly other?: string;
  readonly untouched?: string;
}) {
  const { rows, pairs, people, unknown, documents, readsOn } = impact;
  return (
    <section aria-label="Who is affected" className="stack">
      <p className="answer">
        {pairs === 0
          ? untouched
          : `Affected: ${audience(people, false)} and ${counted(documents, 'document')}.`}
      </p>
      {unknown && <p>Also anyone else a domain or a link lets in; how many is unknown.</p>}
      {sentences(impact, other).map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
      {readsOn !== null && (
        <p className="lamp">
          {counted(readsOn.people, 'person reads', 'people read')} on for a while on their own
          machine, without asking: until <Moment at={readsOn.until} /> at the latest.
        </p>
      )}
      {idle.map((sentence) => (
        <p key={sentence} className="lamp">
          {sentence}
        </p>
      ))}
      {rows.length > 0 && (
        <Table className="list flush fixed">
          <TableBody>
            {[...groupBy(rows, effectOf)].map(([effect, alike]) => (
              <ImpactRow key={effect} alike={alike} />
            ))}
          </TableBody>
        </Table>
      )}
      {pairs > rows.length && <p className="quiet">and {pairs - rows.length} more.</p>}
    </section>
  );
}

/** One person, and the documents to which the same happens for them. */
function ImpactRow({ alike }: { readonly alike: ImpactFound['rows'] }) {
  const [row] = alike;
  if (row === undefined) return null;
  return (
    <TableRow>
      <TableCell>
        {row.person ? (
          <Link prefetch={false} href={`/people?person=${row.recipient}`}>
            {row.name}
          </Link>
        ) : (
          <b>{row.name}</b>
        )}
        {row.organisation !== '' && <span className="quiet"> · {row.organisation}</span>}
        <span className="under">{alike.map(({ title }) => title).join(', ')}</span>
      </TableCell>
      <TableCell>
        {row.lost.length > 0 && <div className="magenta">no longer {row.lost.join(', ')}</div>}
        {row.gained.length > 0 && <div>also {row.gained.join(', ')}</div>}
        <NewEnd row={row} />
      </TableCell>
    </TableRow>
  );
}

function NewEnd({
  row: { ends, endMoves, after, readsOn },
}: {
  readonly row: ImpactFound['rows'][number];
}) {
  if (!ends && !endMoves) return null;
  const end = after === null ? 'never' : <Moment at={after} />;
  return (
    <>
      {ends ? <div className="magenta">ends at once</div> : <div>ends {end}</div>}
      {readsOn !== null && (
        <div className="quiet">
          reads on, on their own machine, until <Moment at={readsOn} />
        </div>
      )}
    </>
  );
}
