'use client';

import { useMemo } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { ChipLink } from '@/ui/shell/chips';
import { Empty } from '@/ui/shell/empty';
import type { Column } from '@/ui/tables/column';
import { DataTable } from '@/ui/tables/data-table';
import { addressWith } from '@/ui/tables/use-address';
import { Moment } from '@/ui/time/moment';
import { sizeText } from '@/ui/words/size-words';

type Message = {
  readonly id: string;
  readonly toAddress: string;
  readonly fromAddress: string;
  readonly subject: string;
  readonly receivedAt: number;
};
type OpenMessage = Message & {
  readonly text: string;
  readonly files: readonly { readonly name: string; readonly bytes: number }[];
};
type Props = {
  readonly messages: readonly Message[];
  readonly addresses: readonly string[];
  readonly address: string | null;
  /** Whether everything for that address comes back. */
  readonly isClosed: boolean;
  readonly open: OpenMessage | null;
};

function mailboxAddress(mailbox: string | null, message?: string): string {
  return addressWith('/mailroom', { address: mailbox ?? undefined, message });
}

/** The demo's mail server: every mailbox in one place. */
export function MailroomView({ messages, addresses, address, isClosed, open }: Props) {
  const columns = useMemo(
    (): readonly Column<Message>[] => [
      {
        id: 'receivedAt',
        header: 'Received',
        width: 144,
        orderBy: (message) => message.receivedAt,
        cell: (message) => <Moment at={message.receivedAt} />,
      },
      {
        id: 'to',
        header: 'To',
        width: 170,
        kind: 'oneline',
        orderBy: (message) => message.toAddress,
        cell: (message) => message.toAddress,
      },
      {
        id: 'subject',
        header: 'Subject',
        width: 210,
        kind: 'oneline',
        orderBy: (message) => message.subject,
        cell: (message) => (
          <Link prefetch={false} href={mailboxAddress(address, message.id)}>
            {message.subject}
          </Link>
        ),
      },
    ],
    [address],
  );
  return (
    <main className="work halves">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>Mailroom</h1>
            <span className="quiet">the demo’s mail server; nothing here leaves this machine</span>
            <span className="gap" />
            {address !== null && <CloseMailbox address={address} isClosed={isClosed} />}
          </div>
          <div className="row above-8 mailboxes">
            <ChipLink className={address === null ? 'on' : ''} href={mailboxAddress(null)}>
              All mailboxes
            </ChipLink>
            {addresses.map((each) => (
              <ChipLink
                key={each}
                className={each === address ? 'figure on' : 'figure'}
                href={mailboxAddress(each)}
              >
                {each}
              </ChipLink>
            ))}
          </div>
        </div>
        {messages.length === 0 ? (
          <Empty title="No mail">
            Messages appear here when something is dispatched or a code is requested.
          </Empty>
        ) : (
          <DataTable
            id="mailroom"
            label="Messages"
            columns={columns}
            rows={messages}
            keyOf={({ id }) => id}
            isSelected={({ id }) => id === open?.id}
            fills={33}
          />
        )}
      </div>
      <aside className="side" aria-label="Message">
        {open === null ? (
          <p className="quiet">Choose a message to read it.</p>
        ) : (
          <MessageRead message={open} />
        )}
      </aside>
    </main>
  );
}

/** Makes everything for a mailbox come back, as for somebody who has left; or takes that back. */
function CloseMailbox({
  address,
  isClosed,
}: {
  readonly address: string;
  readonly isClosed: boolean;
}) {
  const { busy, said, attempt } = useAttempt();
  return (
    <>
      <Notice said={said} />
      {isClosed && <span className="magenta">Mail for it comes back.</span>}
      <Button
        disabled={busy}
        onClick={() =>
          void attempt(
            () => api('POST /api/v1/mailboxes', { address, closed: !isClosed }),
            isClosed ? 'Mail arrives again.' : 'Mail for it comes back from now on.',
          )
        }
      >
        {isClosed ? 'Open mailbox' : 'Close mailbox'}
      </Button>
    </>
  );
}

function MessageRead({ message }: { readonly message: OpenMessage }) {
  return (
    <div className="stack">
      <h2>To {message.toAddress}</h2>
      <p className="answer">{message.subject}</p>
      <p className="quiet">
        {message.fromAddress} · <Moment at={message.receivedAt} />
      </p>
      <hr />
      <div className="mail">
        <Linked text={message.text} />
      </div>
      {message.files.map((file, index) => (
        <p key={file.name}>
          <a
            href={`/api/v1/mailroom/${message.id}/attachments/${String(index)}`}
            download={file.name}
          >
            {file.name}
          </a>{' '}
          <span className="quiet figure">{sizeText(file.bytes)}</span>
        </p>
      ))}
      <hr />
      <div className="row">
        <Button component="a" href={`/api/v1/mailroom/${message.id}`} download>
          Save as .eml
        </Button>
      </div>
    </div>
  );
}

/** The text with its links to follow; they open beside the mailroom, as a mail program would. */
function Linked({ text }: { readonly text: string }) {
  return text.split(/(https?:\/\/\S+)/).map((part, i) =>
    i % 2 === 1 ? (
      <a key={i} href={part} target="_blank" rel="noreferrer">
        {part}
      </a>
    ) : (
      part
    ),
  );
}
