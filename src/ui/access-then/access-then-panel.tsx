'use client';

import { useState, type SubmitEvent } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type {
  AccessThen,
  AccessThenInput,
  AccessThenRow,
  StateThen,
} from '@/contracts/access-then';
import { counted } from '@/core/base/counted';
import { isSameState, stateWords } from '@/ui/access-then/then-words';
import { api } from '@/ui/http/api';
import { sentenceOf } from '@/ui/http/call';
import { Moment } from '@/ui/time/moment';
import { MomentField } from '@/ui/time/moment-field';

type Asked = { readonly at: number; readonly also: number | null };

/** Rows shown at once. */
const SHOWN = 200;

/** Who could open something on a day that is over, compared with another day or with somebody else. */
export function AccessThenPanel({
  of,
  names,
}: {
  readonly of: AccessThenInput['of'];
  /** What tells the rows apart. */ readonly names: 'people' | 'documents' | 'both';
}) {
  const [open, setOpen] = useState(false);
  const [found, setFound] = useState<{ readonly asked: Asked; readonly answer: AccessThen } | null>(
    null,
  );
  const [at, setAt] = useState<number | null>(null);
  const [also, setAlso] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const isPerson = 'recipient' in of;
  if (!open)
    return (
      <div className="row">
        <Button
          onClick={() => {
            setOpen(true);
          }}
        >
          {isPerson ? 'Show past access' : 'Show who could open it before'}
        </Button>
      </div>
    );

  const ask = async (event: SubmitEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (name: string) => {
      const value = form.get(name);
      return typeof value === 'string' ? value : '';
    };
    if (at === null) {
      setProblem('Enter the day and time to look at.');
      return;
    }
    try {
      setFound({
        asked: { at, also },
        answer: await api('POST /api/v1/access-then', {
          of,
          at,
          also,
          other: text('other'),
        }),
      });
      setProblem(null);
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  return (
    <section className="stack" aria-label="Past access">
      <h2>Past access</h2>
      <form className="stack loose" onSubmit={(event) => void ask(event)}>
        <MomentField label="On" value={at} onChange={setAt} none="A day and time" required />
        <MomentField
          label="Compare with another day"
          value={also}
          onChange={setAlso}
          none="Nothing to compare with"
        />
        {isPerson && <TextField name="other" label="Or with another person’s email address" />}
        <div className="row">
          <Button type="submit" variant="contained">
            Show access
          </Button>
          <Button
            onClick={() => {
              setOpen(false);
              setFound(null);
            }}
          >
            Cancel
          </Button>
        </div>
      </form>
      {problem !== null && (
        <p role="alert" className="magenta">
          {problem}
        </p>
      )}
      {found !== null && <Answer asked={found.asked} answer={found.answer} names={names} />}
    </section>
  );
}

function Answer({
  asked,
  answer: { rows, other },
  names,
}: {
  readonly asked: Asked;
  readonly answer: AccessThen;
  readonly names: 'people' | 'documents' | 'both';
}) {
  const [onlyDifferent, setOnlyDifferent] = useState(true);
  const isCompared = other !== null || asked.also !== null;
  const shown = rows.filter(
    ({ then, compared }) =>
      !isCompared || !onlyDifferent || compared === null || !isSameState(then, compared),
  );
  const could = rows.filter(({ then }) => then.opens).length;
  return (
    <div className="stack" style={{ gap: 8 }}>
      <p className="answer">
        {names === 'documents'
          ? `${counted(could, 'document')} could be opened`
          : names === 'people'
            ? `${counted(could, 'person', 'people')} could open it`
            : `${String(could)} times somebody could open a document`}{' '}
        on <Moment at={asked.at} />.
      </p>
      {isCompared && (
        <p className="quiet">
          Compared with {other ?? <Moment at={asked.also ?? 0} />}:{' '}
          {counted(
            rows.filter(({ then, compared }) => compared !== null && !isSameState(then, compared))
              .length,
            'difference',
          )}
          .
        </p>
      )}
      {isCompared && (
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
      )}
      {shown.length === 0 && (
        <p className="quiet">
          {rows.length === 0 ? 'Nothing was given by then.' : 'No differences.'}
        </p>
      )}
      {shown.length > 0 && (
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

function Row({
  row,
  names,
}: {
  readonly row: AccessThenRow;
  readonly names: 'people' | 'documents' | 'both';
}) {
  const person =
    row.kind === 'person' || row.name !== ''
      ? row.name === ''
        ? row.address
        : row.name
      : row.address;
  return (
    <TableRow>
      <TableCell width="48%">
        {names !== 'documents' && (
          <>
            {person}
            {row.organisation !== '' && <span className="quiet"> · {row.organisation}</span>}
            <br />
          </>
        )}
        {names !== 'people' && (
          <span className={names === 'both' ? 'quiet' : ''}>
            <span className="figure">{row.reference}</span> {row.title}
          </span>
        )}
      </TableCell>
      <TableCell className="small">
        <State state={row.then} />
        {row.compared !== null && !isSameState(row.then, row.compared) && (
          <>
            → <State state={row.compared} />
          </>
        )}
      </TableCell>
    </TableRow>
  );
}

function State({ state }: { readonly state: StateThen }) {
  return (
    <div className={state.opens ? '' : 'magenta'}>
      {stateWords(state)}
      {state.opens &&
        (state.until === null ? (
          ', no end'
        ) : (
          <>
            , until <Moment at={state.until} />
          </>
        ))}
    </div>
  );
}
