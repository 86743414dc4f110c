'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { RequestRow } from '@/contracts/requests';
import { groupBy } from '@/core/base/group';
import { isMessage } from '@/core/policy/requests';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { AnswerForm, type AnswerFields } from '@/ui/today/answer-form';
import { Moment } from '@/ui/time/moment';
import { refusedWords } from '@/ui/why/why-words';
import { askText } from '@/ui/words/request-words';
import { rightsLine } from '@/core/policy/rights-line';

/** Requests that want the same on the same dispatch are alike, and are answered together. */
function alike(request: RequestRow): string {
  // What somebody writes is answered to them alone.
  if (isMessage(request)) return request.id;
  return `${request.dispatchId} ${request.right ?? 'time'} ${String(request.right === null || request.until !== null)}`;
}

function names(group: readonly RequestRow[]): string {
  return group.map(({ name, address }) => (name === '' ? address : name)).join(', ');
}

/** What recipients ask for, with the answer in place. */
export function RequestsSection({ requests }: { readonly requests: readonly RequestRow[] }) {
  const [open, setOpen] = useState<string | null>(null);
  const { said, attempt } = useAttempt();
  const groups = [...groupBy(requests, alike).entries()];
  const answer = async (group: readonly RequestRow[], fields: AnswerFields, done: string) => {
    if (
      await attempt(
        () =>
          api('POST /api/v1/requests/answer', {
            requests: group.map((request) => request.id),
            ...fields,
          }),
        `${done} ${names(group)}.`,
      )
    )
      setOpen(null);
  };
  const askBack = async (group: readonly RequestRow[], words: string) => {
    if (
      await attempt(
        () =>
          api('POST /api/v1/requests/ask-back', {
            requests: group.map((request) => request.id),
            words,
          }),
        `Asked ${names(group)}. You will see the reply here.`,
      )
    )
      setOpen(null);
  };
  const title = requests.every(({ mayAnswer }) => mayAnswer)
    ? 'Requests to you'
    : 'Requests to the senders';
  return (
    <section aria-label={title} className="today">
      <h2>
        {title}
        {requests.length > 0 && <span className="figure"> {requests.length}</span>}
      </h2>
      <Notice said={said} />
      {groups.length === 0 ? (
        <p className="quiet">There are no requests.</p>
      ) : (
        <Table className="list flush">
          <TableBody>
            {groups.map(([key, group]) => (
              <GroupRows
                key={key}
                group={group}
                open={open === key}
                onOpen={() => {
                  setOpen(open === key ? null : key);
                }}
                onAnswer={(fields, done) => answer(group, fields, done)}
                onAskBack={(words) => askBack(group, words)}
              />
            ))}
          </TableBody>
        </Table>
      )}
    </section>
  );
}

function GroupRows({
  group,
  open,
  onOpen,
  onAnswer,
  onAskBack,
}: {
  readonly group: readonly RequestRow[];
  readonly open: boolean;
  readonly onOpen: () => void;
  readonly onAnswer: (fields: AnswerFields, done: string) => Promise<void>;
  readonly onAskBack: (words: string) => Promise<void>;
}) {
  const [first] = group;
  if (first === undefined) return null;
  const mayAnswer = group.every((request) => request.mayAnswer);
  return (
    <>
      <TableRow>
        <TableCell>
          <b>{names(group)}</b>
          <br />
          <span className="quiet">
            {[...new Set(group.map((request) => request.organisation))].join(', ')}
          </span>
        </TableCell>
        <TableCell>
          {[...new Set(group.map((request) => request.title))].join(', ')}
          <br />
          <Link prefetch={false} className="quiet" href={`/dispatches/${first.dispatchId}`}>
            {first.subject}
          </Link>
        </TableCell>
        <TableCell className="lamp">
          {askText(first)}
          {first.until !== null && (
            <>
              {' '}
              until <Moment at={first.until} />
            </>
          )}
          <br />
          <span className="quiet">
            {rightsLine(first.holds.rights, first.holds.prints)}
            {first.holds.until !== null && (
              <>
                , ends <Moment at={first.holds.until} />
              </>
            )}
          </span>
          {first.above.right !== null && (
            <div className="magenta">
              Whether you give it or not, the ceiling of {first.above.right} removes it.
            </div>
          )}
          {first.above.until !== null && (
            <div className="magenta">
              The ceiling of {first.above.until.by} ends it <Moment at={first.above.until.at} /> at
              the latest.
            </div>
          )}
        </TableCell>
        <TableCell>
          {group.map((request) => (
            <Said key={request.id} request={request} alone={group.length === 1} />
          ))}
        </TableCell>
        <TableCell>
          {mayAnswer ? (
            <Button className="nowrap" aria-expanded={open} onClick={onOpen}>
              {open ? 'Close' : group.length === 1 ? 'Answer' : `Answer ${String(group.length)}`}
            </Button>
          ) : (
            <span className="quiet">the sender answers</span>
          )}
        </TableCell>
      </TableRow>
      {open && (
        <TableRow>
          <TableCell colSpan={5}>
            <AnswerForm
              request={first}
              people={group.length}
              differ={group.some(({ until }) => until !== first.until)}
              onAnswer={onAnswer}
              onAskBack={onAskBack}
            />
          </TableCell>
        </TableRow>
      )}
    </>
  );
}

/** What one of those who asked said, was asked back and replied. */
function Said({ request, alone }: { readonly request: RequestRow; readonly alone: boolean }) {
  const { met, reason, askedAt, turns, state, name, address } = request;
  return (
    <div>
      {!alone && <span className="quiet">{name === '' ? address : name}: </span>}
      {met !== null && <span className="magenta">Refused: {refusedWords[met]}. </span>}“{reason}”{' '}
      <span className="quiet">
        <Moment at={askedAt} brief />
      </span>
      {turns.map((turn) => (
        <div key={turn.at}>
          <span className="quiet">{turn.by === 'staff' ? 'Asked back:' : 'Reply:'}</span> “
          {turn.text}”{' '}
          <span className="quiet">
            <Moment at={turn.at} brief />
          </span>
        </div>
      ))}
      {state === 'asked-back' && <div className="lamp">Waiting for their reply</div>}
    </div>
  );
}
