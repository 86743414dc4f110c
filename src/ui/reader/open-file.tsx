'use client';

import { useState } from 'react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { AgeError } from '@/core/age/errors';
import { WrapperError } from '@/core/wrapper/errors';
import { FileDrop } from '@/ui/files/file-drop';
import { inspectPicked } from '@/ui/files/read-slice';
import { usePickedFile } from '@/ui/reader/picked-file';
import { LanguageChoice } from '@/ui/reader/language-choice';
import { ReaderBrand } from '@/ui/shell/reader-brand';
import { Problem } from '@/ui/shell/notice';
import { useWords } from '@/ui/words/use-words';

/** Where a link leads, when it is one of this service: its path. */
function pathHere(link: string | null): string | null {
  if (link === null) return null;
  const url = new URL(link);
  if (url.origin !== window.location.origin) return null;
  // The bare address of the reader leads to what was sent.
  if (url.pathname === '/r') return '/r/sent';
  return url.pathname.startsWith('/r/') ? url.pathname : null;
}

/** Where the encrypted part alone leads: to what was sent, where it is of this service. */
function pathOfBare(stanza: { readonly serviceUrl: string } | null): string | null {
  return stanza?.serviceUrl === window.location.origin ? '/r/sent' : null;
}

/** What is said of a file that could not be looked into. */
function wrongWith(error: unknown) {
  if (error instanceof WrapperError) return `file.wrong.${error.code}` as const;
  if (error instanceof AgeError) return 'file.wrong.DAMAGED';
  return error instanceof TypeError ? 'file.noLink' : 'file.unreadable';
}

/** Takes a protected file and leads on to where its cover page would. The file stays on this machine. */
export function FileTaker() {
  const { say } = useWords();
  const router = useRouter();
  const { pick } = usePickedFile();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [elsewhere, setElsewhere] = useState<string | null>(null);
  const take = async (file: File) => {
    setBusy(true);
    setProblem(null);
    setElsewhere(null);
    try {
      const { link, stanza } = await inspectPicked(file);
      const path = pathHere(link) ?? pathOfBare(stanza);
      if (path !== null) {
        pick(stanza === null ? null : { file, version: stanza.version });
        setBusy(false);
        if (path !== window.location.pathname) router.push(path);
        return;
      }
      if (link === null) setProblem(say('file.onlyInside'));
      else setElsewhere(new URL(link).host);
    } catch (error) {
      setProblem(say(wrongWith(error)));
    }
    setBusy(false);
  };
  return (
    <>
      <FileDrop
        words={say('file.drop')}
        choose={say('file.choose')}
        busy={busy}
        onFile={(file) => void take(file)}
      />
      <Problem words={problem} />
      {elsewhere !== null && (
        <p role="alert">
          {say.rich('file.elsewhere', { host: elsewhere, b: (text) => <b>{text}</b> })}
        </p>
      )}
      <p className="quiet">{say('file.stays')}</p>
    </>
  );
}

/** The bare address of the reader, for a browser in which nobody has proven an address. */
export function OpenFile() {
  const { say } = useWords();
  return (
    <main className="entry">
      <ReaderBrand />
      <div className="stack loose">
        <h1>{say('file.heading')}</h1>
        <p>{say('file.intro')}</p>
        <FileTaker />
      </div>
      <hr />
      <p>
        <Link href="/r/sent" prefetch={false}>
          {say('prove.everything')}
        </Link>
      </p>
      <LanguageChoice />
    </main>
  );
}
