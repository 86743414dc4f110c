'use client';

import Link from 'next/link';
import type { TodayPage } from '@/contracts/today';
import { counted } from '@/core/base/counted';
import { dayText, distanceText } from '@/core/base/moment-text';
import type { Silence } from '@/core/insight/never-opened';
import { useHolds } from '@/ui/shell/permissions';
import { Moment } from '@/ui/time/moment';
import { MailAgain } from '@/ui/today/mail-again';
import { TodaySection } from '@/ui/today/today-section';
import { warningWords } from '@/ui/words/warning-words';

const silenceWords: Record<Silence, string> = {
  silent: 'delivered, not opened',
  'tried-and-refused': 'tried to open: refused',
  'mail-bounced': 'the message was not delivered',
  'nothing-yet': 'nothing recorded yet',
};
const MOST_NAMES = 5;

function names(people: readonly string[]): string {
  return people.length <= MOST_NAMES
    ? people.join(', ')
    : `${people.slice(0, MOST_NAMES).join(', ')} and ${String(people.length - MOST_NAMES)} more`;
}

/** A dispatch by its subject, with its reference below. */
function Named({ subject, reference }: { readonly subject: string; readonly reference: string }) {
  return (
    <>
      <b>{subject}</b>
      <span className="under figure">{reference}</span>
    </>
  );
}

/** What is wrong with the server itself, for the person who runs it. */
export function WarningsSection({ warnings }: Pick<TodayPage, 'warnings'>) {
  if (warnings.length === 0) return null;
  return (
    <TodaySection
      title="The server"
      none=""
      rows={warnings.map(({ code, detail }) => {
        const { title, next } = warningWords[code](detail);
        return { key: code, cells: [<b className="magenta">{title}</b>, next] };
      })}
    />
  );
}

/** Who opened from where nobody of their organisation was before. */
export function ElsewhereSection({ elsewhere }: Pick<TodayPage, 'elsewhere'>) {
  const readsRecord = useHolds('read-own-record');
  return (
    <TodaySection
      title="Opened from somewhere new"
      none="Nobody opened from a new place."
      rows={elsewhere.map(({ organisation, place, usual, opens, since }) => ({
        key: `${organisation} ${place}`,
        cells: [
          <b>{organisation}</b>,
          <span className="lamp">{place}</span>,
          <span className="quiet">until then {usual.join(', ')}</span>,
          `${counted(opens, 'open')} since ${dayText(since)}`,
          readsRecord ? (
            <Link
              prefetch={false}
              href={`/ledger?${new URLSearchParams({ organisation, place }).toString()}`}
            >
              Show in ledger
            </Link>
          ) : (
            <Link
              prefetch={false}
              href={`/people?organisation=${encodeURIComponent(organisation)}`}
            >
              Show people
            </Link>
          ),
        ],
      }))}
    />
  );
}

/** Dispatches of which some access ends within a week. */
export function EndingSection({ ending, now }: Pick<TodayPage, 'ending' | 'now'>) {
  return (
    <TodaySection
      title="Ends within a week"
      none="No access ends within a week."
      rows={ending.map((row) => ({
        key: row.dispatchId,
        cells: [
          <Named {...row} />,
          counted(row.people, 'person', 'people'),
          <span className="lamp">{distanceText(row.until, now)}</span>,
          <Moment at={row.until} />,
          <Link prefetch={false} href={`/dispatches/${row.dispatchId}`}>
            Show dispatch
          </Link>,
        ],
      }))}
    />
  );
}

/** Who was sent something and never opened it. */
export function SilentSection({ silent }: Pick<TodayPage, 'silent'>) {
  return (
    <TodaySection
      title="Never opened"
      none="Everybody has opened something they were sent."
      rows={silent.map((row) => ({
        key: `${row.dispatchId} ${row.why}`,
        cells: [
          <Named {...row} />,
          names(row.people),
          <span className={row.why === 'nothing-yet' ? 'quiet' : 'lamp'}>
            {silenceWords[row.why]}
          </span>,
          null,
          <>
            <Link prefetch={false} href={`/dispatches/${row.dispatchId}`}>
              Show dispatch
            </Link>
            {row.mayMail && <MailAgain dispatch={row.dispatchId} recipients={row.recipients} />}
          </>,
        ],
      }))}
    />
  );
}

/** Mail that was given up or is tried again. */
export function UndeliveredSection({ undelivered }: Pick<TodayPage, 'undelivered'>) {
  return (
    <TodaySection
      title="Mail that did not arrive"
      none="Every message was delivered."
      rows={undelivered.map((row, i) => ({
        key: String(i),
        cells: [
          <b>{row.address}</b>,
          row.subject,
          <span className={row.over ? 'magenta' : 'lamp'}>
            {row.over ? 'given up' : 'will be tried again'}
          </span>,
          <span className="quiet">
            {row.problem} {counted(row.attempts, 'try', 'tries')}
          </span>,
          <UndeliveredActs row={row} />,
        ],
      }))}
    />
  );
}

function UndeliveredActs({ row }: { readonly row: TodayPage['undelivered'][number] }) {
  const { dispatchId, recipientId, over, mayMail } = row;
  if (dispatchId === null) return null;
  return (
    <>
      <Link prefetch={false} href={`/dispatches/${dispatchId}`}>
        Show dispatch
      </Link>
      {recipientId !== null && over && mayMail && (
        <MailAgain dispatch={dispatchId} recipients={[recipientId]} />
      )}
    </>
  );
}
