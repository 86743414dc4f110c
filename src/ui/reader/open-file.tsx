'use client';

import { useState } from 'react';
import { FileDrop } from '@/ui/files/file-drop';
import { fileProblem, inspectPicked } from '@/ui/files/read-slice';
import { Emblem } from '@/ui/shell/emblem';

/** Where a link leads, when it is one of this service: its path. */
function pathHere(link: string | null): string | null {
  if (link === null) return null;
  const url = new URL(link);
  return url.origin === window.location.origin && url.pathname.startsWith('/r/')
    ? url.pathname
    : null;
}

/** Takes a protected file and leads on to where its cover page would. The file stays on this machine. */
export function OpenFile() {
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [elsewhere, setElsewhere] = useState<string | null>(null);
  const take = async (file: File) => {
    setBusy(true);
    setProblem(null);
    setElsewhere(null);
    try {
      const { link } = await inspectPicked(file);
      const path = pathHere(link);
      if (path !== null) {
        window.location.assign(path);
        return;
      }
      if (link === null)
        setProblem(
          'This is only the encrypted part. Drop the PDF it came in, or use the link in the message.',
        );
      else setElsewhere(new URL(link).host);
    } catch (error) {
      setProblem(
        error instanceof TypeError
          ? 'This file has no link that can be followed.'
          : fileProblem(error),
      );
    }
    setBusy(false);
  };
  return (
    <main className="entry">
      <div className="brand">
        <Emblem />
        Embargo
      </div>
      <div className="stack loose">
        <h1>Open a protected file</h1>
        <p>
          Drop the file you were sent. You will be asked to prove your email address, and then read
          it here.
        </p>
        <FileDrop
          words="Drop a protected file here"
          busy={busy}
          onFile={(file) => void take(file)}
        />
        {problem !== null && (
          <p role="alert" className="magenta">
            {problem}
          </p>
        )}
        {elsewhere !== null && (
          <p role="alert">
            This file is read somewhere else, at <b>{elsewhere}</b>. Its first page has the link.
            Follow it only if you know that site.
          </p>
        )}
      </div>
      <hr />
      <p className="quiet">The file is read in this browser and is not sent anywhere.</p>
    </main>
  );
}
