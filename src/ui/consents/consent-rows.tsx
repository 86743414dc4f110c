'use client';

import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { ConsentRow } from '@/contracts/keys';
import { counted } from '@/core/base/counted';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { Moment } from '@/ui/time/moment';

const MOST_NAMED = 6;

/** The first of several names, and how many more. */
function listed(names: readonly string[], joint: string): string {
  const more = names.length - MOST_NAMED;
  return names.slice(0, MOST_NAMED).join(joint) + (more > 0 ? ` and ${String(more)} more` : '');
}

/** What somebody asks for, after their name. */
function askedText(row: ConsentRow): string {
  switch (row.kind) {
    case 'one-person':
      return 'that one person is enough from now on';
    case 'send':
      return `to send “${row.subject}” to ${listed(row.to, ', ')}: ${listed(row.titles, '; ')}`;
    case 'lower-marking':
      return `to mark as “${row.subject}”: ${listed(row.titles, '; ')}`;
    case 'destroy-keys':
      return `to destroy ${counted(row.titles.length, 'key')}: ${listed(row.titles, '; ')}.`;
  }
}

/** What waits for a second person, with the two answers. */
export function ConsentRows({ consents }: { readonly consents: readonly ConsentRow[] }) {
  const { busy, said, attempt } = useAttempt();
  const answer = (row: ConsentRow, agree: boolean) =>
    void attempt(
      () => api('POST /api/v1/settings/consents/:id', { id: row.id, agree }),
      agree ? 'Approved and done.' : 'Declined. Nothing was changed.',
    );
  return (
    <>
      <Notice said={said} />
      {consents.length > 0 && (
        <Table className="list flush">
          <TableBody>
            {consents.map((row) => (
              <TableRow key={row.id}>
                <TableCell>
                  <b>{row.askedBy}</b> asks, <Moment at={row.askedAt} />
                </TableCell>
                <TableCell>
                  {askedText(row)}
                  <Leaving at={row.leavesAt} />{' '}
                  {row.kind === 'destroy-keys' && <b>This cannot be undone.</b>}
                  {row.reason !== '' && <span className="under">“{row.reason}”</span>}
                </TableCell>
                <TableCell>
                  <Answers
                    row={row}
                    busy={busy}
                    onAnswer={(agree) => {
                      answer(row, agree);
                    }}
                  />
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </>
  );
}

function Leaving({ at }: { readonly at: number | null }) {
  if (at === null) return null;
  return (
    <>
      . It leaves <Moment at={at} />
    </>
  );
}

function Answers({
  row,
  busy,
  onAnswer,
}: {
  readonly row: ConsentRow;
  readonly busy: boolean;
  readonly onAnswer: (agree: boolean) => void;
}) {
  const decline = (
    <Button
      disabled={busy}
      onClick={() => {
        onAnswer(false);
      }}
    >
      {row.own ? 'Withdraw' : 'Decline'}
    </Button>
  );
  if (row.own)
    return (
      <div className="row tight">
        <span className="lamp">waits for another person</span>
        {decline}
      </div>
    );
  return (
    <div className="row tight">
      <Button
        color={row.kind === 'destroy-keys' ? 'error' : 'primary'}
        disabled={busy}
        onClick={() => {
          onAnswer(true);
        }}
      >
        Approve
      </Button>
      {decline}
    </div>
  );
}
