'use client';

import { useRef, useState } from 'react';
import { useRouter } from 'next/navigation';
import { useDropzone } from 'react-dropzone';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { referenceFrom, titleFrom } from '@/core/content/names';
import type { MarkingRow } from '@/contracts/marking';
import type { FolderId, MarkingId } from '@/core/base/ids';
import { Note } from '@/ui/shell/notice';
import { sentenceOf } from '@/ui/http/call';
import { HalfUploads, halfOf, useHalfUploads } from '@/ui/documents/half-uploads';
import { sizeText } from '@/ui/words/size-words';
import { uploadFile, type UploadProgress } from '@/ui/documents/upload-file';

type Job = {
  readonly key: number;
  readonly file: File;
  readonly title: string;
  readonly reference: string;
  readonly state: 'chosen' | 'sending' | 'done' | 'failed';
  readonly progress: UploadProgress;
  readonly problem: string | null;
};

/** Takes files in: chosen, named, encrypted, each with its progress. */
export function ProtectPanel({
  taken,
  folderId,
  markings,
  recovery,
}: {
  readonly taken: readonly string[];
  readonly folderId: FolderId | null;
  readonly markings: readonly MarkingRow[];
  readonly recovery: boolean;
}) {
  const [marking, setMarking] = useState<MarkingId | null>(null);
  const [recoverable, setRecoverable] = useState(true);
  const router = useRouter();
  const [jobs, setJobs] = useState<readonly Job[]>([]);
  const { halves, look } = useHalfUploads();
  const nextKey = useRef(1);
  const stops = useRef(new Map<number, AbortController>());
  const change = (key: number, part: Partial<Job>) => {
    setJobs((all) => all.map((job) => (job.key === key ? { ...job, ...part } : job)));
  };

  const { getRootProps, getInputProps, isDragActive } = useDropzone({
    onDrop: (files) => {
      setJobs((all) => {
        const used = new Set([...taken, ...all.map((job) => job.reference)]);
        const added = files.map((file): Job => {
          const reference = referenceFrom(file.name, used);
          used.add(reference);
          return {
            key: nextKey.current++,
            file,
            title: titleFrom(file.name),
            reference,
            state: 'chosen',
            progress: { sent: 0, total: file.size },
            problem: null,
          };
        });
        return [...all, ...added];
      });
    },
  });

  const protect = async (job: Job) => {
    const stop = new AbortController();
    stops.current.set(job.key, stop);
    change(job.key, { state: 'sending', problem: null });
    try {
      await uploadFile(
        job.file,
        { title: job.title, reference: job.reference, folderId, markingId: marking, recoverable },
        (progress) => {
          change(job.key, { progress });
        },
        stop.signal,
        halfOf(halves, job.file),
      );
      change(job.key, { state: 'done' });
      look();
      router.refresh();
    } catch (error) {
      look();
      change(
        job.key,
        stop.signal.aborted
          ? { state: 'chosen', progress: { sent: 0, total: job.file.size } }
          : { state: 'failed', problem: sentenceOf(error) },
      );
    }
  };
  const protectAll = async () => {
    for (const job of jobs)
      if (job.state === 'chosen' || job.state === 'failed') await protect(job);
  };
  const remove = (key: number) => {
    setJobs((all) => all.filter((job) => job.key !== key));
  };
  const ready = jobs.filter((job) => job.state === 'chosen' || job.state === 'failed').length;

  return (
    <div className="stack">
      <div
        {...getRootProps({
          className: `drop${isDragActive ? ' over' : ''}`,
          'aria-label': 'Choose PDF files to protect',
        })}
      >
        <input {...getInputProps({ 'aria-label': 'PDF files to protect' })} />
        <b>Drop PDF files here</b> or click to choose them.{' '}
        <span className="quiet">
          Up to 1 GiB each. They are encrypted as they arrive and never stored in the clear.
        </span>
      </div>
      <HalfUploads
        halves={halves.filter(
          (half) => !jobs.some((job) => job.state === 'sending' && job.file.name === half.fileName),
        )}
        onDropped={look}
      />
      {jobs.map((job) => (
        <JobRow
          key={job.key}
          job={job}
          onChange={(part) => {
            change(job.key, part);
          }}
          onCancel={() => {
            stops.current.get(job.key)?.abort();
          }}
          onRemove={() => {
            remove(job.key);
          }}
        />
      ))}
      {ready > 0 && recovery && !recoverable && (
        <Note>
          Without it, the document is lost if this server is lost: only Embargo’s own keys open it.
        </Note>
      )}
      {ready > 0 && (
        <div className="row">
          {markings.length > 0 && (
            <TextField
              select
              label="Marking"
              sx={{ maxWidth: 200 }}
              value={marking ?? 'none'}
              onChange={(event) => {
                setMarking(markings.find((each) => each.id === event.target.value)?.id ?? null);
              }}
            >
              <MenuItem value="none">none</MenuItem>
              {markings.map((each) => (
                <MenuItem key={each.id} value={each.id}>
                  {each.name}
                </MenuItem>
              ))}
            </TextField>
          )}
          {recovery && (
            <FormControlLabel
              control={
                <Checkbox
                  size="small"
                  checked={recoverable}
                  onChange={(_event, on) => {
                    setRecoverable(on);
                  }}
                />
              }
              label="The recovery key can open it"
            />
          )}
          <Button variant="contained" onClick={() => void protectAll()}>
            Encrypt {ready === 1 ? 'this file' : `${String(ready)} files`}
          </Button>
        </div>
      )}
    </div>
  );
}

function JobRow({
  job,
  onChange,
  onCancel,
  onRemove,
}: {
  readonly job: Job;
  readonly onChange: (part: Partial<Job>) => void;
  readonly onCancel: () => void;
  readonly onRemove: () => void;
}) {
  const editable = job.state === 'chosen' || job.state === 'failed';
  const percent = job.progress.total === 0 ? 0 : (job.progress.sent / job.progress.total) * 100;
  return (
    <div className="stack" style={{ borderBottom: '1px solid var(--hair)', padding: '10px 0' }}>
      <div className="row one-row">
        <TextField
          label="Title"
          value={job.title}
          disabled={!editable}
          onChange={(event) => {
            onChange({ title: event.target.value });
          }}
        />
        <TextField
          label="Reference"
          value={job.reference}
          disabled={!editable}
          sx={{ maxWidth: 220 }}
          onChange={(event) => {
            onChange({ reference: event.target.value });
          }}
        />
        <span className="figure quiet nowrap">{sizeText(job.file.size)}</span>
        {job.state === 'sending' && <Button onClick={onCancel}>Cancel</Button>}
        {job.state !== 'sending' && (
          <Button onClick={onRemove}>{job.state === 'done' ? 'Clear' : 'Remove'}</Button>
        )}
      </div>
      {job.state === 'sending' && (
        <LinearProgress
          variant={percent < 100 ? 'determinate' : 'indeterminate'}
          value={percent}
          aria-label={`Encrypting ${job.title}`}
        />
      )}
      {job.state === 'sending' && (
        <span className="quiet">
          {percent < 100
            ? `${sizeText(job.progress.sent)} of ${sizeText(job.progress.total)} encrypted`
            : 'All encrypted; checking that it can be opened'}
        </span>
      )}
      {job.state === 'done' && (
        <span className="current">
          Protected. The clear original is still on your own disk, as {job.file.name}.
        </span>
      )}
      {job.problem !== null && (
        <span role="alert" className="magenta">
          {job.problem}
        </span>
      )}
    </div>
  );
}
