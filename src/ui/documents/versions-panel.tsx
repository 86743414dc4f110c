'use client';

import { useRef, useState } from 'react';
import { useRouter } from 'next/navigation';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import type { VersionRow } from '@/contracts/document-detail';
import type { DocumentId } from '@/core/base/ids';
import { pagesText } from '@/ui/words/pages-words';
import { sizeText } from '@/ui/words/size-words';
import { uploadVersion, type UploadProgress } from '@/ui/protecting/upload-file';
import { sentenceOf } from '@/ui/http/call';
import { TellOfVersion } from '@/ui/documents/tell-of-version';
import { Moment } from '@/ui/time/moment';

/** The versions of a document, and where the next one is taken in. */
export function VersionsPanel({
  id,
  versions,
  mayAdd,
}: {
  readonly id: DocumentId;
  readonly versions: readonly VersionRow[];
  readonly mayAdd: boolean;
}) {
  const router = useRouter();
  const picker = useRef<HTMLInputElement>(null);
  const stop = useRef<AbortController | null>(null);
  const [progress, setProgress] = useState<UploadProgress | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const take = async (file: File) => {
    stop.current = new AbortController();
    setProblem(null);
    setProgress({ sent: 0, total: file.size });
    try {
      await uploadVersion(file, id, setProgress, stop.current.signal);
      router.refresh();
    } catch (error) {
      if (!stop.current.signal.aborted) setProblem(sentenceOf(error));
    } finally {
      setProgress(null);
    }
  };
  return (
    <section className="stack" aria-label="Versions">
      <h2>Versions</h2>
      {versions.map((version) => (
        <p key={version.number}>
          <b>{version.number}</b>
          {version.isCurrent && versions.length > 1 && (
            <span className="current"> opens now</span>
          )}{' '}
          <span className="quiet">
            {version.fileName}, {pagesText(version.pages)}, {sizeText(version.bytes)}, by{' '}
            {version.createdBy} <Moment at={version.createdAt} />, {version.opens}{' '}
            {version.opens === 1 ? 'open' : 'opens'}
          </span>
        </p>
      ))}
      {progress !== null && (
        <div className="row one-row">
          <LinearProgress
            variant="determinate"
            sx={{ flex: 1 }}
            value={progress.total === 0 ? 0 : (progress.sent / progress.total) * 100}
            aria-label="Encrypting"
          />
          <Button
            onClick={() => {
              stop.current?.abort();
            }}
          >
            Cancel
          </Button>
        </div>
      )}
      {mayAdd && progress === null && (
        <>
          <input
            ref={picker}
            type="file"
            hidden
            aria-label="File of the new version"
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = '';
              if (file !== undefined) void take(file);
            }}
          />
          <div className="row">
            <Button onClick={() => picker.current?.click()}>Add a version…</Button>
          </div>
          <p className="quiet">
            Everybody with access then opens the new version. Nothing is mailed by itself. Pages
            that are open now keep their version.
          </p>
          <TellOfVersion id={id} versions={versions} />
        </>
      )}
      {problem !== null && (
        <p role="alert" className="magenta">
          {problem}
        </p>
      )}
    </section>
  );
}
