'use client';

import { useState } from 'react';
import { useRouter } from 'next/navigation';
import { useDropzone } from 'react-dropzone';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { MarkingRow } from '@/contracts/marking';
import type { FolderId, MarkingId } from '@/core/base/ids';
import { counted } from '@/core/base/counted';
import { EncryptHereButton } from '@/ui/protecting/encrypt-here-button';
import { HalfUploads } from '@/ui/protecting/half-uploads';
import { ProtectJob } from '@/ui/protecting/protect-job';
import { isReady, useProtecting, type Filed } from '@/ui/protecting/use-protecting';
import { Note } from '@/ui/shell/notice';

type Props = {
  readonly taken: readonly string[];
  readonly folderId: FolderId | null;
  /** How documents in that folder are marked where nothing else says so. */
  readonly folderMarking: MarkingId | null;
  readonly markings: readonly MarkingRow[];
  /** Whether the organisation has a recovery key. */
  readonly recovery: boolean;
};

/** Takes files in: chosen, named, encrypted, each with its progress. */
export function ProtectPanel({ taken, folderId, folderMarking, markings, recovery }: Props) {
  const { jobs, halves, add, change, remove, cancel, protectAll, protectAgain } =
    useProtecting(taken);
  const router = useRouter();
  const ready = jobs.filter(isReady).length;
  const isEncrypting = (name: string) =>
    jobs.some(
      ({ state, file }) => (state === 'encrypting' || state === 'same') && file.name === name,
    );
  return (
    <div className="stack above-12">
      <DropFiles onFiles={add} />
      <div className="row">
        <EncryptHereButton
          taken={taken}
          folderId={folderId}
          folderMarking={folderMarking}
          markings={markings}
          onDone={() => {
            router.refresh();
          }}
        />
      </div>
      <HalfUploads
        halves={halves.found.filter(({ fileName }) => !isEncrypting(fileName))}
        onDropped={halves.look}
      />
      {jobs.map((job) => (
        <ProtectJob
          key={job.key}
          job={job}
          onChange={(part) => {
            change(job.key, part);
          }}
          onCancel={() => {
            cancel(job.key);
          }}
          onRemove={() => {
            remove(job.key);
          }}
          onAgain={() => void protectAgain(job.key)}
        />
      ))}
      {ready > 0 && (
        <Filing
          key={folderId}
          files={ready}
          begun={folderMarking}
          markings={markings}
          recovery={recovery}
          onGo={(filed) => void protectAll({ folderId, ...filed })}
        />
      )}
    </div>
  );
}

function DropFiles({ onFiles }: { readonly onFiles: (files: readonly File[]) => void }) {
  const { getRootProps, getInputProps, isDragActive } = useDropzone({ onDrop: onFiles });
  return (
    <div
      {...getRootProps({
        className: `drop${isDragActive ? ' over' : ''}`,
        'aria-label': 'Choose files to protect',
      })}
    >
      <input {...getInputProps({ 'aria-label': 'Files to protect' })} />
      <b>Drop files here</b> or click to choose them.{' '}
      <span className="quiet">
        PDF, pictures, text, CSV, Word, Excel and PowerPoint are shown as marked pages; any other
        file can be protected and kept. Up to 1 GiB each, encrypted as they arrive, never stored in
        the clear.
      </span>
    </div>
  );
}

/** How the files are marked, whether the recovery key opens them, and the start. */
function Filing({
  files,
  begun,
  markings,
  recovery,
  onGo,
}: Pick<Props, 'markings' | 'recovery'> & {
  readonly files: number;
  /** The marking of the folder; null: one has to be chosen, never silently the least strict. */
  readonly begun: MarkingId | null;
  readonly onGo: (filed: Omit<Filed, 'folderId'>) => void;
}) {
  const [chosen, setChosen] = useState<MarkingId | 'none' | null>(begun);
  const isUnchosen = chosen === null && markings.length > 0;
  const [recoverable, setRecoverable] = useState(true);
  return (
    <>
      {recovery && !recoverable && (
        <Note>
          Without it, the document is lost if this server is lost: only Embargo’s own keys open it.
        </Note>
      )}
      <div className="row">
        {markings.length > 0 && (
          <TextField
            select
            label="Marking"
            className="narrow"
            value={chosen ?? ''}
            helperText={isUnchosen ? 'Choose one, or none' : ''}
            onChange={({ target }) => {
              setChosen(markings.find(({ id }) => id === target.value)?.id ?? 'none');
            }}
          >
            <MenuItem value="none">none</MenuItem>
            {markings.map(({ id, name }) => (
              <MenuItem key={id} value={id}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        )}
        {recovery && (
          <FormControlLabel
            control={
              <Checkbox
                checked={recoverable}
                onChange={(_event, on) => {
                  setRecoverable(on);
                }}
              />
            }
            label="The recovery key can open it"
          />
        )}
        <Button
          variant="contained"
          disabled={isUnchosen}
          onClick={() => {
            onGo({ markingId: chosen === 'none' ? null : chosen, recoverable });
          }}
        >
          Encrypt {files === 1 ? 'this file' : counted(files, 'file')}
        </Button>
      </div>
    </>
  );
}
