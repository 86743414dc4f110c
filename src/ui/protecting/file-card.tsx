'use client';

import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import LinearProgress from '@mui/material/LinearProgress';
import NativeSelect from '@mui/material/NativeSelect';
import type { MarkingRow } from '@/contracts/marking';
import type { FileJob, Files } from '@/ui/protecting/use-files';
import { sizeText } from '@/ui/words/size-words';

/** A file on its way to being a document of this dispatch. */
export function FileCard({
  job,
  files,
  markings,
}: {
  readonly job: FileJob;
  readonly files: Files;
  readonly markings: readonly MarkingRow[];
}) {
  const { key, title, state, problem } = job;
  const stops = problem !== null && state !== 'only-kept';
  return (
    <li className={stops ? 'document-card stops' : 'document-card'}>
      <span className="document-card-text">
        <b>{title}</b>
        <Progress job={job} />
        {state === 'asks' && <MarkingChoice job={job} files={files} markings={markings} />}
        {state === 'only-kept' && <span className="under">{problem}</span>}
        {stops && (
          <span role="alert" className="magenta small">
            {problem}
          </span>
        )}
      </span>
      <Choice job={job} files={files} />
      <IconButton
        size="small"
        className="card-remove"
        aria-label={`Remove ${title}`}
        onClick={() => {
          files.remove(key);
        }}
      >
        ×
      </IconButton>
    </li>
  );
}

/** How far a file is on its way. */
function Progress({ job: { title, state, file, progress } }: { readonly job: FileJob }) {
  const percent = progress.total === 0 ? 0 : (progress.sent / progress.total) * 100;
  return (
    <>
      {state === 'arriving' && (
        <>
          <LinearProgress
            variant="determinate"
            value={percent}
            aria-label={`Encrypting ${title}`}
          />
          <span className="under oneline">
            {sizeText(progress.sent)} of {sizeText(file.size)}
          </span>
        </>
      )}
      {(state === 'looking' || state === 'finishing') && (
        <span className="under oneline">encrypted; checking that it can be opened</span>
      )}
    </>
  );
}

/** What somebody has to say before it goes on. */
function Choice({
  job: { key, state, same },
  files,
}: {
  readonly job: FileJob;
  readonly files: Files;
}) {
  return (
    <>
      {state === 'same' && same !== null && (
        <Button
          variant="text"
          className="nowrap"
          onClick={() => {
            files.takeSame(key);
          }}
        >
          Use {same.reference}
        </Button>
      )}
      {state === 'only-kept' && (
        <Button
          variant="text"
          onClick={() => {
            files.protectAnyway(key);
          }}
        >
          Protect
        </Button>
      )}
      {state === 'failed' && (
        <Button
          variant="text"
          onClick={() => {
            files.again(key);
          }}
        >
          Try again
        </Button>
      )}
    </>
  );
}

/** Nothing tells how it is to be marked, so somebody does: never silently the least strict. */
function MarkingChoice({
  job: { key, title },
  files,
  markings,
}: {
  readonly job: FileJob;
  readonly files: Files;
  readonly markings: readonly MarkingRow[];
}) {
  return (
    <NativeSelect
      value=""
      inputProps={{ 'aria-label': `Marking of ${title}` }}
      onChange={({ target }) => {
        files.mark(key, markings.find(({ id }) => id === target.value)?.id ?? null);
      }}
    >
      <option value="" disabled>
        choose its marking
      </option>
      {markings.toReversed().map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
      <option value="none">no marking</option>
    </NativeSelect>
  );
}
