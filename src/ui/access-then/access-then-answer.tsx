'use client';

import { useState } from 'react';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { AccessThen, AccessThenRow, StateThen } from '@/contracts/access-then';
import { counted } from '@/core/base/counted';
import { isSameState, stateWords } from '@/ui/access-then/then-words';
import { Moment } from '@/ui/time/moment';

export type AskedThen = { readonly at: number; readonly also: number | null };
export type Names = 'people' | 'documents' | 'both';

/** Rows shown at once. */
const SHOWN = 200;

const couldWords: Record<Names, (n: number) => string> = {
  documents: (n) => `${counted(n, 'document')} could be opened`,
  people: (n) => `${counted(n, 'person', 'people')} could open it`,
  both: (n) => `${String(n)} times somebody could open a document`,
};

function differs({ then, compared }: AccessThenRow): boolean {
  return compared !== null && !isSameState(then, compared);
}

/** Who could open what at the moment that was asked about, and what is different at the other. */
export function AccessThenAnswer({
  asked,
  answer: { rows, other },
  names,
}: {
  readonly asked: AskedThen;
  readonly answer: AccessThen;
  readonly names: Names;
}) {
  const [onlyDifferent, setOnlyDifferent] = useState(true);
  const isCompared = other !== null || asked.also !== null;
  const shown = rows.filter(
    (row) => !isCompared || !onlyDifferent || row.compared === null || differs(row),
  );
  return (
    <div className="stack">
      <p className="answer">
        {couldWords[names](rows.filter(({ then }) => then.opens).length)} on{' '}
        <Moment at={asked.at} />.
      </p>
      {isCompared && (
        <>
          <p className="quiet">
            Compared with {other ?? <Moment at={asked.also ?? 0} />}:{' '}
            {counted(rows.filter(differs).length, 'difference')}.
          </p>
          <FormControlLabel
            control={
              <Checkbox
                checked={onlyDifferent}
                onChange={(_event, on) => {
                  setOnlyDifferent(on);
                }}
              />
            }
            label="Only differences"
          />
        </>
      )}
      {shown.length === 0 ? (
        <p className="quiet">
          {rows.length === 0 ? 'Nothing was given by then.' : 'No differences.'}
        </p>
      ) : (
        <Table className="list flush">
          <TableBody>
            {shown.slice(0, SHOWN).map((row) => (
              <Row key={`${row.recipient} ${row.document}`} row={row} names={names} />
            ))}
          </TableBody>
        </Table>
      )}
      {shown.length > SHOWN && <p className="quiet">and {shown.length - SHOWN} more.</p>}
    </div>
  );
}

function Row({ row, names }: { readonly row: AccessThenRow; readonly names: Names }) {
  return (
    <TableRow>
      <TableCell width="48%">
        {names !== 'documents' && (
          <div>
            {row.name === '' ? row.address : row.name}
            {row.organisation !== '' && <span className="quiet"> · {row.organisation}</span>}
          </div>
        )}
        {names !== 'people' && (
          <span className={names === 'both' ? 'quiet' : ''}>
            <span className="figure">{row.reference}</span> {row.title}
          </span>
        )}
      </TableCell>
      <TableCell>
        <State state={row.then} />
        {row.compared !== null && differs(row) && (
          <>
            → <State state={row.compared} />
          </>
        )}
      </TableCell>
    </TableRow>
  );
}

function State({ state }: { readonly state: StateThen }) {
  if (!state.opens) return <div className="magenta">{stateWords(state)}</div>;
  return (
    <div>
      {stateWords(state)}
      {state.until === null ? (
        ', no end'
      ) : (
        <>
          , until <Moment at={state.until} />
        </>
      )}
    </div>
  );
}
