'use client';

import { useCallback, useState, type ReactNode } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { DocumentId } from '@/core/base/ids';
import type { SentDocument, SentToYou } from '@/contracts/sent';
import { CallError, sentenceOf } from '@/ui/http/call';
import { AskedRequest } from '@/ui/reader/asked-request';
import { Opening, Stuck } from '@/ui/reader/before-opening';
import { LanguageChoice } from '@/ui/reader/language-choice';
import { leave } from '@/ui/reader/leave';
import { FileTaker } from '@/ui/reader/open-file';
import { OpenView } from '@/ui/reader/open-view';
import { isCounted } from '@/ui/reader/is-counted';
import { NotAmong, documentOf, usePickedFile } from '@/ui/reader/picked-file';
import { OwnPasskeys } from '@/ui/reader/own-passkeys';
import { OwnDevices } from '@/ui/reader/own-devices';
import { ReaderBrand } from '@/ui/shell/reader-brand';
import { readerCall } from '@/ui/reader/reader-call';
import { SharedRow } from '@/ui/reader/shared-row';
import { useHandIn } from '@/ui/reader/use-hand-in';
import { useSigned } from '@/ui/reader/use-signed';
import { Moment } from '@/ui/time/moment';
import { useWords } from '@/ui/words/use-words';

/**
 * Everything that was sent to the address this browser has proven; `entry` is shown where that is
 * not, or no longer, accepted.
 */
export function SentView({ entry }: { readonly entry: ReactNode }) {
  const { found, failed, setFound } = useSigned<SentToYou>('/api/v1/reader/sent');
  const { picked, pick } = usePickedFile();
  useHandIn();
  const [asked, setAsked] = useState<DocumentId | null>(null);
  // What was opened or asked for meanwhile stands on the list.
  const renew = useCallback(() => {
    readerCall<SentToYou>('GET', '/api/v1/reader/sent').then(setFound, () => undefined);
  }, [setFound]);
  if (failed instanceof CallError && failed.code === 'NOT_SIGNED_IN') return entry;
  if (failed !== null) return <Stuck words={sentenceOf(failed)} onLeave={() => void leave()} />;
  if (found === null) return <Opening />;
  const meant = documentOf(picked, found.documents);
  const chosen = asked ?? (meant === undefined || isCounted(meant) ? null : meant.id);
  if (chosen === null) return <Sent sent={found} onSent={setFound} onOpen={setAsked} />;
  return (
    <OpenView
      token={null}
      document={chosen}
      onBack={() => {
        setAsked(null);
        pick(null);
        renew();
      }}
      onAsked={renew}
    />
  );
}

function isFound(words: string, { title, reference, sender }: SentDocument): boolean {
  const text = `${title} ${reference} ${sender}`.toLocaleLowerCase();
  return words
    .toLocaleLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

/** So many documents are seen at a glance; of more, some are looked for. */
const AT_A_GLANCE = 5;

function Sent({
  sent,
  onSent,
  onOpen,
}: {
  readonly sent: SentToYou;
  readonly onSent: (sent: SentToYou) => void;
  readonly onOpen: (id: DocumentId) => void;
}) {
  const { say } = useWords();
  const [words, setWords] = useState('');
  const { documents, address, organisation } = sent;
  const shown = documents.filter((document) => isFound(words, document));
  const list = (isOpen: boolean) => shown.filter(({ state }) => state.open === isOpen);
  return (
    <main className="entry shared">
      <ReaderBrand />
      <h1>{say('sent.heading')}</h1>
      <p className="quiet above-6">
        {say('sent.by', { organisation })} · {say('shared.hereAs', { address })}{' '}
        <Button variant="text" onClick={() => void leave()}>
          {say('prove.other')}
        </Button>
      </p>
      {documents.length > AT_A_GLANCE && (
        <div className="above-10">
          <TextField
            type="search"
            fullWidth
            label={say('sent.find')}
            value={words}
            onChange={({ target }) => {
              setWords(target.value);
            }}
          />
        </div>
      )}
      <NotAmong documents={documents} />
      {documents.length === 0 && <p>{say('sent.none', { address })}</p>}
      {documents.length > 0 && shown.length === 0 && <p role="status">{say('sent.noneFound')}</p>}
      <Documents
        heading={say('sent.open', { count: list(true).length })}
        documents={list(true)}
        onOpen={onOpen}
      />
      <Documents
        heading={say('sent.closed', { count: list(false).length })}
        documents={list(false)}
        onOpen={onOpen}
      />
      <OwnDevices
        devices={sent.devices}
        onDevices={(devices) => {
          onSent({ ...sent, devices });
        }}
      />
      <OwnPasskeys
        passkeys={sent.passkeys}
        onPasskeys={(passkeys) => {
          onSent({ ...sent, passkeys });
        }}
      />
      <section className="stack">
        <h2>{say('file.heading')}</h2>
        <FileTaker />
      </section>
      <section className="stack">
        <h2>{say('recorded.heading')}</h2>
        <p className="quiet">{say('recorded.you')}</p>
        <p className="quiet">{say('recorded.stays')}</p>
      </section>
      <LanguageChoice />
    </main>
  );
}

function Documents({
  heading,
  documents,
  onOpen,
}: {
  readonly heading: string;
  readonly documents: readonly SentDocument[];
  readonly onOpen: (id: DocumentId) => void;
}) {
  if (documents.length === 0) return null;
  return (
    <section>
      <h2>{heading}</h2>
      <ul>
        {documents.map((document) => (
          <SharedRow
            key={document.id}
            document={document}
            more={<About document={document} />}
            onOpen={() => {
              onOpen(document.id);
            }}
          />
        ))}
      </ul>
    </section>
  );
}

/** From whom it came and when, and what came of what was asked. */
function About({ document: { sender, sentAt, requests } }: { readonly document: SentDocument }) {
  const { say } = useWords();
  return (
    <div className="quiet small">
      <p>{say.rich('sent.from', { sender, when: () => <Moment at={sentAt} /> })}</p>
      {requests.map((request) => (
        // A question is answered where the document is opened.
        <AskedRequest key={request.id} request={request} sender={sender} onReply={null} />
      ))}
    </div>
  );
}
