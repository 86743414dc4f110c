'use client';

import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { counted } from '@/core/base/counted';
import { useState } from 'react';
import Link from 'next/link';
import type { FileFound } from '@/contracts/files';
import type { VersionId } from '@/core/base/ids';
import { Note, Problem } from '@/ui/shell/notice';
import { FileDrop } from '@/ui/files/file-drop';
import { fileProblem, inspectPicked } from '@/ui/files/read-slice';
import { api } from '@/ui/http/api';
import { CallError } from '@/ui/http/call';
import { sizeText } from '@/ui/words/size-words';
import { Moment } from '@/ui/time/moment';

type Answer = {
  readonly name: string;
  readonly found: FileFound | null;
  readonly host: string | null;
};
const stateWords: Record<FileFound['grants'][number]['state'], string> = {
  live: 'can open it now',
  'not-yet': 'not yet',
  expired: 'ended',
  revoked: 'revoked',
  blocked: 'blocked',
};

/** Says what a protected file is, without opening it and without sending it anywhere. */
export function InspectPanel() {
  const [busy, setBusy] = useState(false);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const take = async (file: File) => {
    setBusy(true);
    setProblem(null);
    setAnswer(null);
    try {
      const { stanza, link } = await inspectPicked(file);
      const { found } =
        stanza === null
          ? { found: null }
          : await api('POST /api/v1/files/inspect', {
              // The server says of an id that is none that it is not known here.
              version: stanza.version as VersionId,
              serviceUrl: stanza.serviceUrl,
              link,
            });
      setAnswer({
        name: file.name,
        found,
        host: stanza === null ? null : new URL(stanza.serviceUrl).host,
      });
    } catch (error) {
      setProblem(error instanceof CallError ? error.message : fileProblem(error));
    }
    setBusy(false);
  };
  return (
    <section className="stack" aria-label="Inspect a file">
      <h2>Inspect a file</h2>
      <FileDrop
        words="Drop a protected file, or the age file from one"
        busy={busy}
        onFile={(file) => void take(file)}
      />
      <Problem words={problem} />
      {answer !== null && <Found answer={answer} />}
      <p className="quiet">
        The file is read in this browser. Only the ids in its header are sent to the server.
      </p>
    </section>
  );
}

function Found({ answer: { name, found, host } }: { readonly answer: Answer }) {
  if (found === null)
    return (
      <div className="stack" role="status">
        <p className="answer">
          {host === null
            ? 'An age file that Embargo did not make.'
            : `A protected file of another service, ${host}.`}
        </p>
        <p className="quiet">{name}</p>
      </div>
    );
  const { document, version, madeFor, grants } = found;
  const live = grants.filter(({ state }) => state === 'live').length;
  return (
    <div className="stack" role="status">
      <p className="answer">
        {document.title}, version {version.number}
        {version.current ? '' : ', not the current one'}.
      </p>
      <p>
        <Link href={`/documents/${document.id}`}>
          <span className="figure">{document.reference}</span>
        </Link>{' '}
        · {sizeText(version.bytes)} · protected <Moment at={version.protectedAt} />
      </p>
      <MadeFor of={madeFor} />
      {version.keyDestroyed && (
        <p className="magenta">
          Its key was destroyed:{' '}
          {version.recoverable ? 'only the recovery key opens it.' : 'nothing opens it.'}
        </p>
      )}
      {document.revoked && <p className="magenta">The document is revoked.</p>}
      {!version.recoverable && !version.keyDestroyed && (
        <Note>The recovery key does not open this one.</Note>
      )}
      <h2>
        {live} of {counted(grants.length, 'grant')} {live === 1 ? 'opens' : 'open'} it now
      </h2>
      <Table className="list flush name-form">
        <TableBody>
          {grants.slice(0, 40).map((grant, index) => (
            <TableRow key={index}>
              <TableCell>{grant.address}</TableCell>
              <TableCell
                className={
                  grant.state === 'live' ? 'quiet' : grant.state === 'not-yet' ? 'lamp' : 'magenta'
                }
              >
                {stateWords[grant.state]}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {grants.length > 40 && (
        <p className="quiet">and {grants.length - 40} more, on the document’s page</p>
      )}
    </div>
  );
}

function MadeFor({ of }: { readonly of: FileFound['madeFor'] }) {
  if (of === null) return null;
  return (
    <p>
      Made for <b>{of.address ?? 'everybody it was sent to'}</b>, sent by {of.sentBy}{' '}
      <Moment at={of.sentAt} />:{' '}
      <Link className="figure" href={`/dispatches/${of.dispatch}`}>
        {of.reference}
      </Link>
    </p>
  );
}
