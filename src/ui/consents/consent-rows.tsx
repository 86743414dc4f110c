'use client';

import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { ConsentRow } from '@/contracts/keys';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { Moment } from '@/ui/time/moment';

const MOST_NAMED = 6;

/** What waits for a second person, with the two answers. */
export function ConsentRows({ consents }: { readonly consents: readonly ConsentRow[] }) {
  const { busy, said, attempt } = useAttempt();
  const answer = (row: ConsentRow, agree: boolean) =>
    attempt(
      () => api('POST /api/v1/settings/consents/:id', { id: row.id, agree }),
      agree ? 'Approved and done.' : 'Declined. Nothing was changed.',
    );
  return (
    <>
      <Notice said={said} />
      {consents.length > 0 && (
        <Table className="list">
          <TableBody>
            {consents.map((row) => (
              <TableRow key={row.id}>
                <TableCell>
                  <b>{row.askedBy}</b> asks, <Moment at={row.askedAt} />
                </TableCell>
                <TableCell>
                  {row.kind === 'one-person' ? (
                    'that one person is enough from now on'
                  ) : row.kind === 'send' ? (
                    <>
                      to send “{row.subject}” to {row.to.slice(0, MOST_NAMED).join(', ')}
                      {row.to.length > MOST_NAMED &&
                        ` and ${String(row.to.length - MOST_NAMED)} more`}
                      : {row.titles.slice(0, MOST_NAMED).join('; ')}
                    </>
                  ) : row.kind === 'lower-marking' ? (
                    <>
                      to mark as “{row.subject}”: {row.titles.slice(0, MOST_NAMED).join('; ')}
                      {row.titles.length > MOST_NAMED &&
                        ` and ${String(row.titles.length - MOST_NAMED)} more`}
                    </>
                  ) : (
                    <>
                      to destroy {row.titles.length} keys:{' '}
                      {row.titles.slice(0, MOST_NAMED).join('; ')}
                      {row.titles.length > MOST_NAMED &&
                        ` and ${String(row.titles.length - MOST_NAMED)} more`}
                      . <b>This cannot be undone.</b>
                    </>
                  )}
                  {row.reason !== '' && (
                    <>
                      <br />
                      <span className="quiet">“{row.reason}”</span>
                    </>
                  )}
                </TableCell>
                <TableCell className="row">
                  {row.own ? (
                    <>
                      <span className="lamp">waits for another person</span>
                      <Button disabled={busy} onClick={() => void answer(row, false)}>
                        Withdraw
                      </Button>
                    </>
                  ) : (
                    <>
                      <Button
                        color={row.kind === 'destroy-keys' ? 'error' : 'primary'}
                        disabled={busy}
                        onClick={() => void answer(row, true)}
                      >
                        Approve
                      </Button>
                      <Button disabled={busy} onClick={() => void answer(row, false)}>
                        Decline
                      </Button>
                    </>
                  )}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </>
  );
}
