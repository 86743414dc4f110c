'use client';

import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import TextField from '@mui/material/TextField';
import { isReady, type Job } from '@/ui/protecting/use-protecting';
import { sizeText } from '@/ui/words/size-words';

/** One file on its way in: its name, how far it is, and what came of it. */
export function ProtectJob({
  job,
  onChange,
  onCancel,
  onRemove,
  onAgain,
}: {
  readonly job: Job;
  readonly onChange: (part: Partial<Job>) => void;
  readonly onCancel: () => void;
  readonly onRemove: () => void;
  /** Makes another document of it, although it is one already. */
  readonly onAgain: () => void;
}) {
  const { file, title, reference, state, problem, notice } = job;
  return (
    <div className="stack job">
      <div className="row one-row">
        <TextField
          label="Title"
          value={title}
          disabled={!isReady(job)}
          onChange={({ target }) => {
            onChange({ title: target.value });
          }}
        />
        <TextField
          label="Reference"
          className="narrow"
          value={reference}
          disabled={!isReady(job)}
          onChange={({ target }) => {
            onChange({ reference: target.value });
          }}
        />
        <span className="figure quiet nowrap">{sizeText(file.size)}</span>
        {state === 'encrypting' ? (
          <Button onClick={onCancel}>Cancel</Button>
        ) : (
          <Button onClick={onRemove}>{state === 'done' ? 'Clear' : 'Remove'}</Button>
        )}
      </div>
      {state === 'encrypting' && <Encrypting job={job} />}
      {state === 'done' && (
        <span className="current">
          Protected. The clear original is still on your own disk, as {file.name}.
        </span>
      )}
      {notice !== null && state !== 'done' && <span className="quiet">{notice}</span>}
      {problem !== null && (
        <span role="alert" className="magenta">
          {problem}
        </span>
      )}
      {state === 'same' && (
        <div className="row">
          <span className="quiet">Another document of it would have access of its own.</span>
          <Button onClick={onAgain}>Protect as another document</Button>
        </div>
      )}
    </div>
  );
}

function Encrypting({ job: { title, progress } }: { readonly job: Job }) {
  const percent = progress.total === 0 ? 0 : (progress.sent / progress.total) * 100;
  return (
    <>
      <LinearProgress
        variant={percent < 100 ? 'determinate' : 'indeterminate'}
        value={percent}
        aria-label={`Encrypting ${title}`}
      />
      <span className="quiet">
        {percent < 100
          ? `${sizeText(progress.sent)} of ${sizeText(progress.total)} encrypted`
          : 'All encrypted; checking that it can be opened'}
      </span>
    </>
  );
}
