'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import type { BringProgress, PeoplePreview } from '@/contracts/people-exchange';
import { Note, Notice } from '@/ui/shell/notice';
import { api } from '@/ui/http/api';
import { CallError, callLines } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { FileDrop } from '@/ui/files/file-drop';

type Brought = { readonly file: string; readonly text: string; readonly preview: PeoplePreview };
const formatWords: Record<PeoplePreview['format'], string> = {
  csv: 'CSV',
  ldif: 'LDIF',
  vcard: 'vCards',
};
const counted = (n: number): string => n.toLocaleString('en-GB');

/** Whether anybody is given access by what is imported. */
function givenWords({ groups }: PeoplePreview): string {
  const live = groups.filter((group) => group.live > 0);
  return live.length === 0
    ? 'Nobody was given access.'
    : `Who joined ${live.map(({ name }) => `“${name}”`).join(', ')} has what was sent to it as a group.`;
}

const FAILED = 'Something went wrong on the server. Nobody was imported.';

/** Lists of people in and out: what would change is shown before anything does. */
export function ImportPeople() {
  const { busy, said, attempt } = useAttempt();
  const [brought, setBrought] = useState<Brought | null>(null);
  const [progress, setProgress] = useState<BringProgress | null>(null);
  const look = (file: File) =>
    attempt(async () => {
      const text = await file.text();
      setBrought({
        file: file.name,
        text,
        preview: await api('POST /api/v1/people/exchange/preview', { text }),
      });
    });
  const bring = async () => {
    if (brought === null) return;
    const { added, changed } = brought.preview;
    const well = await attempt(
      async () => {
        await callLines('/api/v1/people/exchange', { text: brought.text }, (said) => {
          const line = said as BringProgress;
          if (line.failed === true) throw new CallError(FAILED, 'FAILED', 500);
          setProgress(line);
        });
      },
      `${counted(added)} imported, ${counted(changed)} changed. ${givenWords(brought.preview)}`,
    );
    setProgress(null);
    if (well) setBrought(null);
  };
  const change =
    brought === null
      ? 0
      : brought.preview.added +
        brought.preview.changed +
        brought.preview.groups.reduce((sum, { joining }) => sum + joining, 0);
  return (
    <section className="stack above-12" aria-label="Lists of people">
      <FileDrop
        words="Drop a list of people: CSV, LDIF or vCard"
        busy={busy}
        onFile={(file) => void look(file)}
      />
      <div className="row">
        <span className="quiet">Export everybody as</span>
        {(['csv', 'ldif', 'vcard'] as const).map((format) => (
          <Button
            key={format}
            component="a"
            variant="text"
            href={`/api/v1/people/exchange?format=${format}`}
            download
          >
            {formatWords[format]}
          </Button>
        ))}
      </div>
      <Notice said={said} />
      {brought !== null && (
        <>
          <p>
            <b>{brought.file}</b>, {formatWords[brought.preview.format]}:{' '}
            <b>{counted(brought.preview.added)}</b> new, <b>{counted(brought.preview.changed)}</b>{' '}
            changed, {counted(brought.preview.same)} the same as here
            {brought.preview.problems > 0 && (
              <>
                ,{' '}
                <span className="magenta">
                  {counted(brought.preview.problems)}{' '}
                  {brought.preview.problems === 1 ? 'line' : 'lines'} with something wrong
                </span>
              </>
            )}
            . Nobody is removed, and fields the list leaves empty stay as they are.
          </p>
          {brought.preview.groups.map(({ name, isNew, joining, live }) => (
            <p key={name} className={live > 0 ? 'lamp' : 'quiet'}>
              {counted(joining)} {joining === 1 ? 'person joins' : 'people join'} “{name}”
              {isNew && ', a new group'}
              {live > 0 &&
                `, and ${joining === 1 ? 'is' : 'are'} given what was sent to it as a group: ` +
                  `${counted(live)} ${live === 1 ? 'dispatch' : 'dispatches'}`}
              .
            </p>
          ))}
          {brought.preview.doubtful.map(({ domain, like, people }) => (
            <Note key={domain}>
              {domain} is new, and one letter away from {like} ({counted(people)}{' '}
              {people === 1 ? 'person' : 'people'}). Is that right?
            </Note>
          ))}
          <Preview preview={brought.preview} />
          {progress !== null && progress.all > 0 && (
            <LinearProgress
              variant="determinate"
              value={(progress.done / progress.all) * 100}
              aria-label="Importing people"
            />
          )}
          <div className="row">
            <Button
              variant="contained"
              disabled={busy || change === 0}
              onClick={() => void bring()}
            >
              {change === 0 ? 'Nothing to import' : `Import ${counted(change)}`}
            </Button>
            <Button
              variant="text"
              disabled={busy}
              onClick={() => {
                setBrought(null);
              }}
            >
              Cancel
            </Button>
          </div>
        </>
      )}
    </section>
  );
}

/** The first of what is wrong, changed and new, with lines. */
function Preview({
  preview: { firstProblems, firstChanged, firstAdded },
}: {
  readonly preview: PeoplePreview;
}) {
  return (
    <div className="choice-list" tabIndex={0} role="region" aria-label="What would change">
      <Table className="list">
        <TableHead>
          <TableRow>
            <TableCell className="number">Line</TableCell>
            <TableCell>What</TableCell>
            <TableCell>Here now</TableCell>
            <TableCell>Would be</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {firstProblems.map(({ line, what }) => (
            <TableRow key={`p${String(line)}${what}`}>
              <TableCell className="number">{line}</TableCell>
              <TableCell className="magenta" colSpan={3}>
                {what}
              </TableCell>
            </TableRow>
          ))}
          {firstChanged.map(({ line, address, before, after }) => (
            <TableRow key={`c${String(line)}`}>
              <TableCell className="number">{line}</TableCell>
              <TableCell>{address}</TableCell>
              <TableCell className="quiet">{before}</TableCell>
              <TableCell>{after}</TableCell>
            </TableRow>
          ))}
          {firstAdded.map(({ line, address, name, organisation }) => (
            <TableRow key={`a${String(line)}`}>
              <TableCell className="number">{line}</TableCell>
              <TableCell>{address}</TableCell>
              <TableCell className="quiet">new</TableCell>
              <TableCell>{[name, organisation].filter((part) => part !== '').join(', ')}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </div>
  );
}
