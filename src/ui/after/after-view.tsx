'use client';

import Link from 'next/link';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import type { AfterPage, AfterRow } from '@/contracts/after-revocation';
import { counted } from '@/core/base/counted';
import { takenText } from '@/core/insight/after-words';
import { addresseeName } from '@/core/policy/addressee-name';
import { ChipButton } from '@/ui/shell/chips';
import { closedText } from '@/ui/after/after-words';
import { wayText } from '@/core/insight/after-words';
import { call } from '@/ui/http/call';
import { useAttempt, type Attempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { Moment } from '@/ui/time/moment';

/** What came of pulling access back, person by person, until nobody is left who can read. */
export function AfterView({ page }: { readonly page: AfterPage }) {
  const { about, rows, documentRevoked, keyDestroyed, mayReinstate } = page;
  const work = useAttempt();
  const back =
    about.dispatch === null
      ? `/documents/${about.document ?? ''}`
      : `/dispatches/${about.dispatch}`;
  const query =
    about.dispatch === null ? `document=${about.document ?? ''}` : `dispatch=${about.dispatch}`;
  const undo = rows.flatMap((row) => row.undo);
  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>After the revocation</h1>
            <Link href={back}>{about.name}</Link>
            <span className="figure quiet">{about.reference}</span>
            <span className="gap" />
            {documentRevoked && mayReinstate && !keyDestroyed && (
              <Button
                disabled={work.busy}
                onClick={() =>
                  void work.attempt(
                    () => call('POST', `/api/v1/documents/${about.document ?? ''}/reinstate`, {}),
                    'The document is reinstated.',
                  )
                }
              >
                Reinstate the document
              </Button>
            )}
            {undo.length > 0 && (
              <Button disabled={work.busy} onClick={() => void reinstate(work, undo)}>
                Reinstate all {undo.length}
              </Button>
            )}
            {rows.length > 0 && (
              <Button component="a" href={`/api/v1/revocation-statement?${query}`} download>
                Signed statement
              </Button>
            )}
          </div>
          {rows.length > 0 && <p className="answer above-6">{closedText(page)}</p>}
          {keyDestroyed && (
            <p className="quiet">
              The key is destroyed: nobody can ever open it again, and nothing can be taken back.
            </p>
          )}
          <Notice said={work.said} />
        </div>
        <div className="scroll">
          {rows.length === 0 ? (
            <div className="empty">
              <h2>Nothing of this is revoked</h2>
              <p>
                <Link href={back}>Back to {about.name}</Link>
              </p>
            </div>
          ) : (
            <AfterTable rows={rows} work={work} oneDocument={about.dispatch === null} />
          )}
        </div>
      </div>
    </main>
  );
}

function reinstate(work: Attempt, grants: readonly string[]): Promise<boolean> {
  return work.attempt(
    () => call<{ readonly changed: number }>('POST', '/api/v1/grants/reinstate', { grants }),
    ({ changed }) => `Reinstated ${String(changed)}.`,
  );
}

function AfterTable({
  rows,
  work,
  oneDocument,
}: {
  readonly rows: readonly AfterRow[];
  readonly work: Attempt;
  readonly oneDocument: boolean;
}) {
  return (
    <Table className="list">
      <TableHead>
        <TableRow>
          <TableCell>Who</TableCell>
          <TableCell>{oneDocument ? 'By' : 'Document'}</TableCell>
          <TableCell>Shut out</TableCell>
          <TableCell>Tried since</TableCell>
          <TableCell>What they took</TableCell>
          <TableCell>
            <span className="hidden-text">Undo</span>
          </TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {rows.map((row) => (
          <TableRow key={`${row.recipient} ${row.document}`}>
            <TableCell>
              {row.kind === 'person' || row.kind === 'visitor' ? (
                <Link href={`/people?person=${row.recipient}`}>{addresseeName(row)}</Link>
              ) : (
                addresseeName(row)
              )}
              <br />
              <span className="quiet small">{row.organisation}</span>
            </TableCell>
            <TableCell>
              {oneDocument ? (
                row.dispatch
              ) : (
                <>
                  {row.title}
                  <br />
                  <span className="figure quiet small">{row.reference}</span>
                </>
              )}
            </TableCell>
            <TableCell>
              <Standing row={row} />
            </TableCell>
            <TableCell className={row.tries + row.triesByOthers > 0 ? 'magenta' : 'quiet'}>
              <Tried row={row} />
            </TableCell>
            <TableCell className="quiet">
              {takenText(row.copies).join(', ')}
              {row.copies.keptAt !== null && (
                <>
                  {takenText(row.copies).length > 0 && ', '}a copy kept{' '}
                  <Moment at={row.copies.keptAt} />
                </>
              )}
              {takenText(row.copies).length === 0 &&
                row.copies.keptAt === null &&
                'nothing recorded'}
            </TableCell>
            <TableCell>
              {row.undo.length > 0 && (
                <ChipButton disabled={work.busy} onClick={() => void reinstate(work, row.undo)}>
                  Reinstate
                </ChipButton>
              )}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}

/** Whether they tried since, or others by what they were sent. */
function Tried({ row: { tries, lastTry, triesByOthers } }: { readonly row: AfterRow }) {
  if (tries + triesByOthers === 0) return 'no';
  return (
    <>
      {tries > 0 && (
        <>
          {counted(tries, 'time')}, last <Moment at={lastTry ?? 0} />
          {triesByOthers > 0 && <br />}
        </>
      )}
      {triesByOthers > 0 && `others ${counted(triesByOthers, 'time')}, by what they were sent`}
    </>
  );
}

/** Since when somebody is shut out, or how they still read. */
function Standing({ row }: { readonly row: AfterRow }) {
  const said = (
    <>
      {row.by !== '' && <span className="quiet"> by {row.by}</span>}
      {row.reason !== '' && (
        <>
          <br />
          <span className="quiet small">“{row.reason}”</span>
        </>
      )}
    </>
  );
  if (row.ways.length > 0)
    return (
      <span className="magenta">
        Still reads
        {row.until === null ? (
          ', no end is set'
        ) : (
          <>
            {' '}
            until <Moment at={row.until} />
          </>
        )}
        : {row.ways.map(wayText).join('; ')}
      </span>
    );
  return (
    <>
      {row.since === null ? (
        'shut out'
      ) : (
        <>
          since <Moment at={row.since} />
        </>
      )}
      {said}
      {row.offlineUntil !== null && (
        <>
          <br />
          <span className="lamp">
            may go on reading what was open until <Moment at={row.offlineUntil} />
          </span>
        </>
      )}
    </>
  );
}
