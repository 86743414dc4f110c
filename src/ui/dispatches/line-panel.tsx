'use client';

import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { GrantRow } from '@/contracts/dispatch';
import { counted } from '@/core/base/counted';
import type { DocumentId } from '@/core/base/ids';
import { GrantPanel } from '@/ui/grants/grant-panel';
import { personName, stateOf, stateWords, underCeilings } from '@/ui/grants/grant-words';
import { RowButton } from '@/ui/tables/row-button';
import { Moment } from '@/ui/time/moment';
import { whoLine } from '@/ui/words/addressee-words';
import { EntriesFigure } from '@/ui/words/entries-figure';

type Props = {
  readonly grants: readonly GrantRow[];
  readonly now: number;
  readonly onDocument: (id: DocumentId) => void;
};

/** Explains what is picked: one grant whole, one person with their documents, or several people in a few words. */
export function LinePanel({ grants, now, onDocument }: Props) {
  const [first] = grants;
  if (first === undefined) return null;
  if (grants.length === 1) return <GrantPanel grant={first} now={now} />;
  if (grants.some((grant) => grant.recipientId !== first.recipientId))
    return <Several grants={grants} now={now} />;
  const canOpen = grants.filter((grant) => stateOf(grant, now) === 'live').length;
  return (
    <div className="stack">
      <h2>
        {personName(first)}
        {first.organisation === '' ? '' : ` · ${first.organisation}`}
      </h2>
      <p className="answer">
        Can open {canOpen} of {counted(grants.length, 'document')} now.
      </p>
      <p className="quiet">{first.kind === 'person' ? first.address : whoLine(first)}</p>
      <Table className="list flush">
        <TableBody>
          {grants.map((grant) => (
            <HeldDocument key={grant.id} grant={grant} now={now} onDocument={onDocument} />
          ))}
        </TableBody>
      </Table>
    </div>
  );
}

function Several({ grants, now }: Omit<Props, 'onDocument'>) {
  const people = new Set(grants.map((grant) => grant.recipientId));
  const canOpen = grants.filter((grant) => stateOf(grant, now) === 'live');
  return (
    <div className="stack">
      <h2>{counted(people.size, 'person', 'people')}</h2>
      <p className="answer">
        {new Set(canOpen.map((grant) => grant.recipientId)).size} of them can open something now.
      </p>
      <p>{[...new Set(grants.map(personName))].join(', ')}</p>
    </div>
  );
}

function HeldDocument({
  grant,
  now,
  onDocument,
}: Omit<Props, 'grants'> & { readonly grant: GrantRow }) {
  const state = stateOf(grant, now);
  const { until } = underCeilings(grant);
  return (
    <TableRow>
      <TableCell>
        <RowButton
          onPress={() => {
            onDocument(grant.documentId);
          }}
        >
          {grant.documentTitle}
        </RowButton>
        <span className={state === 'live' ? 'under' : 'under magenta'}>
          {stateWords[state]}, {until === null ? 'no end' : <Moment at={until} />}
        </span>
      </TableCell>
      <TableCell className="number">
        <EntriesFigure
          n={grant.opens}
          of={{
            document: grant.documentId,
            recipient: grant.recipientId,
            dispatch: grant.dispatchId,
            kind: 'opened',
          }}
        />
      </TableCell>
    </TableRow>
  );
}
