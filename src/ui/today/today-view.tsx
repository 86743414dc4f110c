'use client';

import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { refusalName } from '@/core/policy/refusal-names';
import { useState, type ReactNode } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { TodayPage } from '@/contracts/today';
import type { Silence } from '@/core/insight/never-opened';
import { ChipButton, ChipLink } from '@/ui/shell/chips';
import { MailAgain } from '@/ui/today/mail-again';
import { ConsentRows } from '@/ui/consents/consent-rows';
import { RequestsSection } from '@/ui/today/requests-section';
import { useHolds } from '@/ui/shell/permissions';
import { warningWords } from '@/ui/words/warning-words';
import { WhyPanel } from '@/ui/why/why-panel';
import { Moment } from '@/ui/time/moment';
import { dayText, distanceText } from '@/core/base/moment-text';

const silenceWords: Record<Silence, string> = {
  silent: 'delivered, not opened',
  'tried-and-refused': 'tried to open: refused',
  'mail-bounced': 'the message was not delivered',
  'nothing-yet': 'nothing recorded yet',
};
const whoseWords: Record<TodayPage['of'], string> = {
  all: 'All',
  own: 'Yours',
  others: 'Others',
};
const MOST_NAMES = 5;

function names(people: readonly string[]): string {
  return people.length <= MOST_NAMES
    ? people.join(', ')
    : `${people.slice(0, MOST_NAMES).join(', ')} and ${String(people.length - MOST_NAMES)} more`;
}

function Section({
  title,
  none,
  rows,
}: {
  readonly title: string;
  readonly none: string;
  readonly rows: readonly ReactNode[];
}) {
  return (
    <section aria-label={title} className="today">
      <h2>
        {title}
        {rows.length > 0 && <span className="figure"> {rows.length}</span>}
      </h2>
      {rows.length === 0 ? (
        <p className="quiet">{none}</p>
      ) : (
        <Table className="list">
          <TableBody>{rows}</TableBody>
        </Table>
      )}
    </section>
  );
}

/** What is wrong with the server itself, for whoever runs it. */
function Warnings({ warnings }: { readonly warnings: TodayPage['warnings'] }) {
  return (
    <section aria-label="The server" className="today">
      <h2>
        The server <span className="figure">{warnings.length}</span>
      </h2>
      <Table className="list">
        <TableBody>
          {warnings.map(({ code, detail }) => {
            const { title, next } = warningWords[code](detail);
            return (
              <TableRow key={code}>
                <TableCell className="magenta">
                  <b>{title}</b>
                </TableCell>
                <TableCell>{next}</TableCell>
              </TableRow>
            );
          })}
        </TableBody>
      </Table>
    </section>
  );
}

/** The entries of one organisation at one place. */
function placeAddress({ organisation, place }: TodayPage['elsewhere'][number]): string {
  return `/ledger?${new URLSearchParams({ organisation, place }).toString()}`;
}

/** What needs somebody now; each row leads to where it is dealt with. */
export function TodayView({ page }: { readonly page: TodayPage }) {
  const readsRecord = useHolds('read-own-record');
  /** Whose refusal is being explained. */
  const [asked, setAsked] = useState<{
    readonly recipient: string;
    readonly document: string;
  } | null>(null);
  const {
    now,
    of,
    choices,
    recorded,
    warnings,
    requests,
    consents,
    elsewhere,
    refused,
    ending,
    silent,
    undelivered,
  } = page;
  const count =
    warnings.length +
    requests.length +
    consents.length +
    elsewhere.length +
    refused.length +
    ending.length +
    silent.length +
    undelivered.length;
  return (
    <main className={asked === null ? 'work wide' : 'work'}>
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>Today</h1>
            <span className="quiet">
              {count === 0
                ? 'nothing to do'
                : `${String(count)} ${count === 1 ? 'thing' : 'things'} to look at`}
            </span>
            <span className="gap" />
            {choices.length > 1 &&
              choices.map((each) => (
                <ChipLink
                  key={each}
                  href={each === choices[0] ? '/today' : `/today?of=${each}`}
                  aria-current={each === of ? 'true' : undefined}
                >
                  {whoseWords[each]}
                </ChipLink>
              ))}
            <span className="quiet">
              <Moment at={now} named />
            </span>
          </div>
        </div>
        <div className="scroll part-body">
          {warnings.length > 0 && <Warnings warnings={warnings} />}
          {consents.length > 0 && (
            <section aria-label="Needs a second person" className="today">
              <h2>
                Needs a second person <span className="figure">{consents.length}</span>
              </h2>
              <ConsentRows consents={consents} />
            </section>
          )}
          <RequestsSection requests={requests} />
          {!recorded && (
            <p className="quiet">
              Refusals and places of other people’s documents are shown to their owners,
              administrators and auditors.
            </p>
          )}
          {recorded && (
            <Section
              title="Refused in the last week"
              none="Nobody was refused."
              rows={refused.map((row) => (
                <TableRow
                  key={`${row.recipientId ?? row.who} ${row.documentId ?? ''} ${row.reason}`}
                >
                  <TableCell>
                    <b>{row.who}</b>
                    <br />
                    <span className="quiet">
                      {row.organisation === '' ? 'not a recipient' : row.organisation}
                    </span>
                  </TableCell>
                  <TableCell>
                    {row.title === '' ? <span className="quiet">a forwarded link</span> : row.title}
                  </TableCell>
                  <TableCell className="magenta">
                    {refusalName(row.reason)}
                    {row.times > 1 && `, ${String(row.times)} times`}
                  </TableCell>
                  <TableCell className="small">
                    <Moment at={row.last} />
                  </TableCell>
                  <TableCell>
                    {row.recipientId !== null && (
                      <Link href={`/people?person=${row.recipientId}`}>Show person</Link>
                    )}
                    {row.recipientId !== null && row.documentId !== null && (
                      <>
                        <br />
                        <ChipButton
                          aria-label={`Why: ${row.who}, ${row.title}`}
                          onClick={() => {
                            setAsked({
                              recipient: row.recipientId ?? '',
                              document: row.documentId ?? '',
                            });
                          }}
                        >
                          Why?
                        </ChipButton>
                      </>
                    )}
                    {row.recipientId === null && readsRecord && (
                      <Link href="/ledger?kind=refused">Show in ledger</Link>
                    )}
                  </TableCell>
                </TableRow>
              ))}
            />
          )}
          {recorded && (
            <Section
              title="Opened from somewhere new"
              none="Nobody opened from a new place."
              rows={elsewhere.map((row) => (
                <TableRow key={`${row.organisation} ${row.place}`}>
                  <TableCell>
                    <b>{row.organisation}</b>
                  </TableCell>
                  <TableCell className="lamp">{row.place}</TableCell>
                  <TableCell className="quiet">until then {row.usual.join(', ')}</TableCell>
                  <TableCell>
                    {row.opens} {row.opens === 1 ? 'open' : 'opens'} since {dayText(row.since)}
                  </TableCell>
                  <TableCell>
                    {readsRecord ? (
                      <Link href={placeAddress(row)}>Show in ledger</Link>
                    ) : (
                      <Link href={`/people?organisation=${encodeURIComponent(row.organisation)}`}>
                        Show people
                      </Link>
                    )}
                  </TableCell>
                </TableRow>
              ))}
            />
          )}
          <Section
            title="Ends within a week"
            none="No access ends within a week."
            rows={ending.map((row) => (
              <TableRow key={row.dispatchId}>
                <TableCell>
                  <b>{row.subject}</b>
                  <br />
                  <span className="figure quiet">{row.reference}</span>
                </TableCell>
                <TableCell>
                  {row.people} {row.people === 1 ? 'person' : 'people'}
                </TableCell>
                <TableCell className="lamp">{distanceText(row.until, now)}</TableCell>
                <TableCell>
                  <Moment at={row.until} />
                </TableCell>
                <TableCell>
                  <Link href={`/dispatches/${row.dispatchId}`}>Show dispatch</Link>
                </TableCell>
              </TableRow>
            ))}
          />
          <Section
            title="Never opened"
            none="Everybody has opened something they were sent."
            rows={silent.map((row) => (
              <TableRow key={`${row.dispatchId} ${row.why}`}>
                <TableCell>
                  <b>{row.subject}</b>
                  <br />
                  <span className="figure quiet">{row.reference}</span>
                </TableCell>
                <TableCell>{names(row.people)}</TableCell>
                <TableCell className={row.why === 'nothing-yet' ? 'quiet' : 'lamp'}>
                  {silenceWords[row.why]}
                </TableCell>
                <TableCell />
                <TableCell>
                  <Link href={`/dispatches/${row.dispatchId}`}>Show dispatch</Link>
                  {row.mayMail && (
                    <MailAgain dispatch={row.dispatchId} recipients={row.recipients} />
                  )}
                </TableCell>
              </TableRow>
            ))}
          />
          <Section
            title="Mail that did not arrive"
            none="Every message was delivered."
            rows={undelivered.map((row, i) => (
              <TableRow key={i}>
                <TableCell>
                  <b>{row.address}</b>
                </TableCell>
                <TableCell>{row.subject}</TableCell>
                <TableCell className={row.over ? 'magenta' : 'lamp'}>
                  {row.over ? 'given up' : 'will be tried again'}
                </TableCell>
                <TableCell className="quiet">
                  {row.problem} {row.attempts} {row.attempts === 1 ? 'try' : 'tries'}
                </TableCell>
                <TableCell>
                  {row.dispatchId !== null && (
                    <Link href={`/dispatches/${row.dispatchId}`}>Show dispatch</Link>
                  )}
                  {row.dispatchId !== null &&
                    row.recipientId !== null &&
                    row.over &&
                    row.mayMail && (
                      <MailAgain dispatch={row.dispatchId} recipients={[row.recipientId]} />
                    )}
                </TableCell>
              </TableRow>
            ))}
          />
        </div>
      </div>
      {asked !== null && (
        <aside className="side" aria-label="Why">
          <div className="row">
            <span className="gap" />
            <Button
              variant="text"
              onClick={() => {
                setAsked(null);
              }}
            >
              Close
            </Button>
          </div>
          <WhyPanel key={`${asked.recipient} ${asked.document}`} {...asked} />
        </aside>
      )}
    </main>
  );
}
