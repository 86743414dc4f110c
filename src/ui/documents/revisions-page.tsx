'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { RevisionRow, Revisions } from '@/contracts/revisions';
import type { RevisionId } from '@/core/base/ids';
import { AboutDocument, type Named } from '@/ui/documents/about-document';
import { CompareVersions } from '@/ui/documents/compare-versions';
import { api } from '@/ui/http/api';
import { useAsked } from '@/ui/http/use-asked';
import { useAttempt } from '@/ui/http/use-attempt';
import { Empty } from '@/ui/shell/empty';
import { Problem } from '@/ui/shell/notice';
import { Moment } from '@/ui/time/moment';
import { pagesText } from '@/ui/words/pages-words';
import { sizeText } from '@/ui/words/size-words';

const stateWords = { waiting: 'waits for you', accepted: 'accepted', declined: 'declined' };

/** What recipients sent back: compared with the document, and accepted or declined. */
export function RevisionsPage(named: Named) {
  const { answer, problem } = useAsked('GET /api/v1/documents/:id/revisions', { id: named.id });
  const [chosen, setChosen] = useState<RevisionId | null>(null);
  const rows = answer?.revisions ?? [];
  const shown =
    rows.find(({ id }) => id === chosen) ??
    rows.find(({ state }) => state === 'waiting') ??
    rows[0];
  return (
    <AboutDocument {...named} heading={`Changed files of ${named.title}`}>
      <Problem words={problem} />
      {answer?.revisions.length === 0 && (
        <Empty title="Nobody has sent a changed file back">
          Give somebody the right to revise, and what they send comes here, beside the document.
        </Empty>
      )}
      {answer !== null && shown !== undefined && (
        <div className="part stack loose">
          <Files rows={rows} shown={shown.id} onChoose={setChosen} />
          <Shown key={shown.id} named={named} found={answer} row={shown} />
        </div>
      )}
    </AboutDocument>
  );
}

function Files({
  rows,
  shown,
  onChoose,
}: {
  readonly rows: readonly RevisionRow[];
  readonly shown: RevisionId;
  readonly onChoose: (id: RevisionId) => void;
}) {
  return (
    <ul className="plain-list" aria-label="Changed files">
      {rows.map((row) => (
        <li key={row.id} className="row one-row">
          <Button
            aria-pressed={row.id === shown}
            onClick={() => {
              onChoose(row.id);
            }}
          >
            {row.fileName}
          </Button>
          <span>
            {row.name === '' ? row.address : row.name},{' '}
            <span className="quiet">
              <Moment at={row.sentAt} />, {pagesText(row.pages)}, {sizeText(row.bytes)},{' '}
              {stateWords[row.state]}
            </span>
          </span>
        </li>
      ))}
    </ul>
  );
}

function Shown({
  named,
  found: { current, currentPages },
  row,
}: {
  readonly named: Named;
  readonly found: Revisions;
  readonly row: RevisionRow;
}) {
  const who = row.name === '' ? row.address : row.name;
  // Once answered it is beside what was changed: accepted, it is the version that opens itself.
  const before =
    row.state === 'waiting'
      ? { number: current, pages: currentPages, name: `Version ${String(current)}, as it opens` }
      : { ...row.basedOn, name: `Version ${String(row.basedOn.number)}, which was changed` };
  return (
    <>
      {row.note !== '' && <blockquote className="quoted">“{row.note}”</blockquote>}
      {row.basedOn.number !== current && row.state === 'waiting' && (
        <p className="lamp">
          {who} changed version {row.basedOn.number}. Version {current} opens now: what it brought
          is not in this file.
        </p>
      )}
      {row.state === 'waiting' && <Answer named={named} row={row} />}
      {row.answer !== '' && <p className="quiet">You said: “{row.answer}”</p>}
      <CompareVersions
        id={named.id}
        before={before}
        after={{ number: row.number, pages: row.pages, name: `${row.fileName}, from ${who}` }}
      />
    </>
  );
}

function Answer({ named, row }: { readonly named: Named; readonly row: RevisionRow }) {
  const [words, setWords] = useState('');
  const { busy, problem, attempt } = useAttempt();
  const answer = (accept: boolean) =>
    attempt(() =>
      api('POST /api/v1/documents/:id/revisions', {
        id: named.id,
        revision: row.id,
        accept,
        words,
      }),
    );
  return (
    <div className="stack tight">
      <TextField
        label="A sentence with your answer"
        multiline
        value={words}
        onChange={({ target }) => {
          setWords(target.value);
        }}
        slotProps={{ htmlInput: { maxLength: 500 } }}
      />
      <div className="row">
        <Button variant="contained" disabled={busy} onClick={() => void answer(true)}>
          Accept
        </Button>
        <Button disabled={busy} onClick={() => void answer(false)}>
          Decline
        </Button>
        <span className="quiet">
          Accepted, it opens for everybody with access, by the same links. They are told of the
          answer either way.
        </span>
      </div>
      <Problem words={problem} />
    </div>
  );
}
