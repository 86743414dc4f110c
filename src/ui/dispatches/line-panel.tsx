'use client';

import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { counted } from '@/core/base/counted';
import type { GrantRow } from '@/contracts/dispatch';
import type { DocumentId } from '@/core/base/ids';
import { GrantPanel } from '@/ui/grants/grant-panel';
import { personName, stateOf, stateWords, underCeilings } from '@/ui/grants/grant-words';
import { whoLine } from '@/ui/words/addressee-words';
import { Moment } from '@/ui/time/moment';
import { EntriesFigure } from '@/ui/words/entries-figure';

/** Explains what is picked: one grant whole, one person with their documents, or several people in a few words. */
export function LinePanel({
  grants,
  now,
  onDocument,
}: {
  readonly grants: readonly GrantRow[];
  readonly now: number;
  readonly onDocument: (id: DocumentId) => void;
}) {
  const [first] = grants;
  if (first === undefined) return null;
  if (grants.length === 1) return <GrantPanel grant={first} now={now} />;
  const people = new Set(grants.map((grant) => grant.recipientId));
  const canOpen = grants.filter((grant) => stateOf(grant, now) === 'live');
  if (people.size > 1) {
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
  return (
    <div className="stack">
      <h2>
        {personName(first)}
        {first.organisation === '' ? '' : ` · ${first.organisation}`}
      </h2>
      <p className="answer">
        Can open {canOpen.length} of {counted(grants.length, 'document')} now.
      </p>
      <p className="quiet">{first.kind === 'person' ? first.address : whoLine(first)}</p>
      <Table className="list flush">
        <TableBody>
          {grants.map((grant) => (
            <TableRow key={grant.id}>
              <TableCell>
                <button
                  type="button"
                  className="row-button"
                  onClick={() => {
                    onDocument(grant.documentId);
                  }}
                >
                  {grant.documentTitle}
                </button>
                <br />
                <span
                  className={stateOf(grant, now) === 'live' ? 'quiet' : 'magenta'}
                  style={{ fontSize: 12 }}
                >
                  {stateWords[stateOf(grant, now)]}
                  <End at={underCeilings(grant).until} />
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
          ))}
        </TableBody>
      </Table>
    </div>
  );
}

function End({ at }: { readonly at: number | null }) {
  return at === null ? (
    ', no end'
  ) : (
    <>
      , <Moment at={at} />
    </>
  );
}
