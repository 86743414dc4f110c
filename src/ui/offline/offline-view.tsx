'use client';

import { useEffect, useState } from 'react';
import Button from '@mui/material/Button';
import { isAppError } from '@/core/base/errors';
import { UnsavedComment } from '@/ui/comments/comments-panel';
import { FileDrop } from '@/ui/files/file-drop';
import { inspectPicked } from '@/ui/files/read-slice';
import { OfflineReader } from '@/ui/offline/offline-reader';
import { useOfflineComments } from '@/ui/offline/use-offline-comments';
import { openOffline, type OfflineReading } from '@/ui/offline/offline-source';
import { allLicences, licenceOf, type KeptLicence } from '@/ui/own-machine/kept-licences';
import { OwnFailure } from '@/ui/own-machine/own-worker';
import { ReaderBrand } from '@/ui/shell/reader-brand';
import { Problem } from '@/ui/shell/notice';
import { Moment } from '@/ui/time/moment';
import { useWords } from '@/ui/words/use-words';

/** What is wrong with a picked file, by the code of the failure. */
const WRONG = {
  CLOCK_BACK: 'offline.clockBack',
  LICENCE_OVER: 'offline.over',
  BAD_LICENCE: 'offline.over',
  NOT_KEPT: 'offline.notKept',
  NO_LICENCE: 'offline.noLicence',
  NOT_PROTECTED: 'file.wrong.NOT_PROTECTED',
  NEWER: 'file.wrong.NEWER',
  DAMAGED: 'file.wrong.DAMAGED',
} as const;

function wordsFor(error: unknown): (typeof WRONG)[keyof typeof WRONG] | 'file.unreadable' {
  const code = error instanceof OwnFailure || isAppError(error) ? error.code : '';
  return Object.hasOwn(WRONG, code) ? WRONG[code as keyof typeof WRONG] : 'file.unreadable';
}

async function openPicked(file: File): Promise<OfflineReading> {
  const { stanza } = await inspectPicked(file);
  const kept = stanza === null ? undefined : await licenceOf(stanza.version);
  if (kept === undefined) throw new OwnFailure('NO_LICENCE');
  return openOffline(kept, file);
}

/** Tells when there is a connection again. */
function useIsOnline(): boolean {
  const [isOnline, setOnline] = useState(false);
  useEffect(() => {
    const back = () => {
      setOnline(true);
    };
    window.addEventListener('online', back);
    return () => {
      window.removeEventListener('online', back);
    };
  }, []);
  return isOnline;
}

/** The reader where there is no connection: files whose time without asking still runs are read here. */
export function OfflineView() {
  const { say } = useWords();
  const [licences, setLicences] = useState<readonly KeptLicence[]>([]);
  const [reading, setReading] = useState<OfflineReading | null>(null);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const isOnline = useIsOnline();
  const comments = useOfflineComments(reading?.kept ?? null);
  useEffect(() => {
    allLicences().then(setLicences, () => undefined);
  }, []);
  const take = async (file: File) => {
    setBusy(true);
    setProblem(null);
    try {
      setReading(await openPicked(file));
    } catch (error) {
      setProblem(say(wordsFor(error)));
    }
    setBusy(false);
  };
  const close = (why: string | null) => {
    reading?.end();
    setReading(null);
    setProblem(why);
  };
  if (reading !== null)
    return (
      <OfflineReader
        reading={reading}
        comments={comments}
        connection={isOnline ? <GoOn /> : null}
        onOver={(error) => {
          close(say(wordsFor(error)));
        }}
        onBack={() => {
          close(null);
        }}
      />
    );
  return (
    <main className="entry shared">
      <ReaderBrand />
      <div className="stack loose">
        <h1>{say('offline.heading')}</h1>
        {isOnline && <GoOn />}
        <p>{say('offline.intro')}</p>
        <FileDrop
          words={say('file.drop')}
          choose={say('file.choose')}
          busy={busy}
          onFile={(file) => void take(file)}
        />
        <Problem words={problem} />
        <UnsavedComment comments={comments} />
        <Readable licences={licences} />
      </div>
    </main>
  );
}

function Readable({ licences }: { readonly licences: readonly KeptLicence[] }) {
  const { say } = useWords();
  if (licences.length === 0) return <p className="quiet">{say('offline.none')}</p>;
  return (
    <section>
      <h2>{say('offline.list')}</h2>
      <ul>
        {licences.map(({ version, about, offlineUntil }) => (
          <li key={version} className="row">
            <div>
              <b dir="auto">{about.title}</b>{' '}
              <span className="figure quiet">{about.reference}</span>
              <br />
              <span className="quiet">
                {say.rich('offline.until', { end: () => <Moment at={offlineUntil} named /> })}
              </span>
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}

function GoOn() {
  const { say } = useWords();
  return (
    <p role="status" className="notice">
      {say('offline.online')}{' '}
      <Button
        onClick={() => {
          window.location.reload();
        }}
      >
        {say('offline.goOn')}
      </Button>
    </p>
  );
}
