'use client';

import Link from 'next/link';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { ChipLink } from '@/ui/shell/chips';
import { sizeText } from '@/ui/words/size-words';
import { Moment } from '@/ui/time/moment';

type Message = {
  readonly id: string;
  readonly toAddress: string;
  readonly fromAddress: string;
  readonly subject: string;
  readonly receivedAt: number;
};
type Props = {
  readonly messages: readonly Message[];
  readonly addresses: readonly string[];
  readonly address: string | null;
  readonly open:
    | (Message & {
        readonly text: string;
        readonly files: readonly { readonly name: string; readonly bytes: number }[];
      })
    | null;
};

/** The text with its links to follow; they open beside the mailroom, as a mail program would. */
function Linked({ text }: { readonly text: string }) {
  return (
    <>
      {text.split(/(https?:\/\/\S+)/).map((part, i) =>
        i % 2 === 1 ? (
          <a key={i} href={part} target="_blank" rel="noreferrer">
            {part}
          </a>
        ) : (
          part
        ),
      )}
    </>
  );
}

/** The demo's mail server: every mailbox in one place. */
export function MailroomView({ messages, addresses, address, open }: Props) {
  const query = (message: string | null, mailbox: string | null) =>
    `/mailroom?${new URLSearchParams([
      ...(mailbox === null ? [] : [['address', mailbox]]),
      ...(message === null ? [] : [['message', message]]),
    ]).toString()}`;
  return (
    <main className="work" style={{ gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1.1fr)' }}>
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>Mailroom</h1>
            <span className="quiet">the demo’s mail server; nothing here leaves this machine</span>
          </div>
          <div className="row" style={{ marginTop: 8, maxHeight: 92, overflow: 'auto' }}>
            <ChipLink
              style={address === null ? { background: 'var(--shoal)' } : {}}
              href={query(null, null)}
            >
              All mailboxes
            </ChipLink>
            {addresses.map((each) => (
              <ChipLink
                key={each}
                className="figure"
                style={each === address ? { background: 'var(--shoal)' } : {}}
                href={query(null, each)}
              >
                {each}
              </ChipLink>
            ))}
          </div>
        </div>
        <div className="scroll">
          {messages.length === 0 ? (
            <div className="empty">
              <h2>No mail</h2>
              <p>Messages appear here when something is dispatched or a code is requested.</p>
            </div>
          ) : (
            <Table className="list">
              <TableHead>
                <TableRow>
                  <TableCell>Received</TableCell>
                  <TableCell>To</TableCell>
                  <TableCell>Subject</TableCell>
                </TableRow>
              </TableHead>
              <TableBody>
                {messages.map((message) => (
                  <TableRow key={message.id} aria-selected={message.id === open?.id}>
                    <TableCell>
                      <Moment at={message.receivedAt} />
                    </TableCell>
                    <TableCell className="oneline">{message.toAddress}</TableCell>
                    <TableCell className="oneline">
                      <Link href={query(message.id, address)}>{message.subject}</Link>
                    </TableCell>
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          )}
        </div>
      </div>
      <aside className="side" aria-label="Message">
        {open === null ? (
          <p className="quiet">Choose a message to read it.</p>
        ) : (
          <div className="stack">
            <h2>To {open.toAddress}</h2>
            <p className="answer">{open.subject}</p>
            <p className="quiet">
              {open.fromAddress} · <Moment at={open.receivedAt} />
            </p>
            <hr />
            <div className="mail">
              <Linked text={open.text} />
            </div>
            {open.files.map((file, index) => (
              <p key={file.name}>
                <a
                  href={`/api/v1/mailroom/${open.id}/attachments/${String(index)}`}
                  download={file.name}
                >
                  {file.name}
                </a>{' '}
                <span className="quiet figure">{sizeText(file.bytes)}</span>
              </p>
            ))}
            <hr />
            <div className="row">
              <Button component="a" href={`/api/v1/mailroom/${open.id}`} download>
                Save as .eml
              </Button>
            </div>
          </div>
        )}
      </aside>
    </main>
  );
}
