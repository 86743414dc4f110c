'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { DispatchDetail } from '@/contracts/dispatch';
import { counted } from '@/core/base/counted';
import { personName } from '@/ui/grants/grant-words';
import { isMailTrouble, type Handed } from '@/ui/dispatches/handed-to';
import { useHanded } from '@/ui/dispatches/use-handed';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { ActsMenu } from '@/ui/shell/acts-menu';
import { Notice } from '@/ui/shell/notice';
import { Moment } from '@/ui/time/moment';
import { mailStateWords } from '@/ui/words/mail-words';

/** Those who are listed at first. */
const FEW = 12;

type Props = { readonly detail: DispatchDetail };

/** To whom a dispatch went and by which link: whether it arrived, came back and was opened. */
export function HandedPart({ detail }: Props) {
  const [isOpen, setOpen] = useState(false);
  const [isWhole, setWhole] = useState(false);
  const { busy, said, attempt } = useAttempt();
  const handed = useHanded(detail);
  const troubled = handed.filter(isMailTrouble);
  if (handed.length === 0) return null;
  const listed = isOpen ? handed.slice(0, isWhole ? undefined : FEW) : troubled.slice(0, FEW);
  return (
    <section className="stack" aria-label="Handed over">
      <div className="row">
        <h2>Handed over</h2>
        <span className="gap" />
        <Button
          variant="text"
          aria-expanded={isOpen}
          onClick={() => {
            setOpen(!isOpen);
          }}
        >
          {isOpen ? 'Close' : counted(handed.length, 'recipient')}
        </Button>
      </div>
      <p role="status">{countsOf(handed, detail)}</p>
      <MailProgress handed={handed} />
      {detail.mayAdd && (
        <MailActs
          detail={detail}
          waiting={handed.filter(({ mail }) => mail?.state === 'waiting').length}
          troubled={troubled}
          busy={busy}
          attempt={attempt}
        />
      )}
      <Notice said={said} />
      {listed.length > 0 && (
        <Table className="list flush" aria-label="Handed over">
          <TableBody>
            {listed.map((each) => (
              <HandedRow
                key={each.grant.recipientId}
                each={each}
                detail={detail}
                busy={busy}
                attempt={attempt}
              />
            ))}
          </TableBody>
        </Table>
      )}
      {isOpen && !isWhole && handed.length > FEW && (
        <Button
          variant="text"
          onClick={() => {
            setWhole(true);
          }}
        >
          Show all {handed.length}
        </Button>
      )}
    </section>
  );
}

/** `48 delivered, 1 came back`, or that nothing was mailed. */
function countsOf(handed: readonly Handed[], { delivery }: Props['detail']): string {
  const of = (state: string) => handed.filter(({ mail }) => mail?.state === state).length;
  const counts = (['delivered', 'waiting', 'returned', 'failed', 'stopped'] as const)
    .map((state) => [of(state), mailStateWords[state]] as const)
    .filter(([n]) => n > 0)
    .map(([n, words]) => `${String(n)} ${words}`);
  if (counts.length > 0) return `${counts.join(', ')}.`;
  return delivery === 'by-hand' ? 'Nothing is mailed: you hand it over.' : 'Nothing was mailed.';
}

/** How far handing over is, while it goes on. */
function MailProgress({ handed }: { readonly handed: readonly Handed[] }) {
  const mailed = handed.filter(({ mail }) => mail !== null);
  const waiting = mailed.filter(({ mail }) => mail?.state === 'waiting').length;
  if (waiting === 0) return null;
  return (
    <LinearProgress
      variant="determinate"
      value={((mailed.length - waiting) / mailed.length) * 100}
      aria-label="Handing over"
    />
  );
}

/** Stops what waits, or mails again to those alone whose message did not get there. */
function MailActs({
  detail,
  waiting,
  troubled,
  busy,
  attempt,
}: Omit<RowProps, 'each'> & {
  readonly waiting: number;
  readonly troubled: readonly Handed[];
}) {
  const again = troubled.filter(({ grant }) => grant.kind === 'person' && grant.revokedAt === null);
  return (
    <div className="row">
      {waiting > 0 && (
        <Button
          disabled={busy}
          onClick={() =>
            void attempt(
              () => api('POST /api/v1/dispatches/:id/stop-mail', { id: detail.id }),
              'What waited is not mailed. Everybody’s access stays; revoke it to take it back.',
            )
          }
        >
          Stop {waiting} on the way
        </Button>
      )}
      {again.length > 0 && (
        <Button
          disabled={busy}
          onClick={() =>
            void attempt(
              () =>
                api('POST /api/v1/dispatches/:id/mail-again', {
                  id: detail.id,
                  recipients: again.map(({ grant }) => grant.recipientId),
                }),
              `Mailed to ${counted(again.length, 'recipient')} again.`,
            )
          }
        >
          Mail again to {again.length}
        </Button>
      )}
    </div>
  );
}

type RowProps = {
  readonly each: Handed;
  readonly detail: DispatchDetail;
  readonly busy: boolean;
  readonly attempt: ReturnType<typeof useAttempt>['attempt'];
};

function HandedRow({ each, detail, busy, attempt }: RowProps) {
  const { grant, mail } = each;
  const name = personName(grant);
  const link = { id: detail.id, recipient: grant.recipientId };
  const mayMail = detail.mayAdd && detail.delivery === 'mail' && grant.kind === 'person';
  return (
    <TableRow>
      <TableCell>
        <b>{name}</b>
        {mail !== null && (
          <span className={isMailTrouble(each) ? 'under magenta' : 'under'}>
            {mailStateWords[mail.state]} <Moment at={mail.at} />
            {mail.problem !== '' && <>. {mail.problem}</>}
          </span>
        )}
        <Used {...each} />
      </TableCell>
      <TableCell>
        {detail.mayAdd && (
          <ActsMenu
            label={`Link of ${name}`}
            disabled={busy}
            items={[
              mayMail && {
                label: 'Mail again',
                act: () =>
                  void attempt(
                    () =>
                      api('POST /api/v1/dispatches/:id/mail-again', {
                        id: detail.id,
                        recipients: [grant.recipientId],
                      }),
                    `Mailed to ${name} again.`,
                  ),
              },
              {
                label: 'Replace link',
                act: () =>
                  void attempt(
                    () => api('POST /api/v1/dispatches/:id/links', link),
                    `The old link of ${name} leads nowhere now. Mail the new one, or hand it over.`,
                  ),
              },
              !grant.linkOff && {
                label: 'Switch off link',
                act: () =>
                  void attempt(
                    () => api('POST /api/v1/dispatches/:id/links/off', link),
                    `The link of ${name} leads nowhere now. Their access stays; a new link brings them back.`,
                  ),
              },
            ]}
          />
        )}
      </TableCell>
    </TableRow>
  );
}

function Used({ grant, opens, lastOpen }: Handed) {
  return (
    <span className="under">
      {grant.linkOff && <span className="magenta">link switched off, </span>}
      {lastOpen === null ? (
        'never opened'
      ) : (
        <>
          {counted(opens, 'open')}, last <Moment at={lastOpen} />
        </>
      )}
    </span>
  );
}
