'use client';

import { useState, type ReactNode } from 'react';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { Brought, Imported } from '@/contracts/odrl';
import { LARGEST_ODRL } from '@/core/odrl/largest';
import type { Attempt } from '@/ui/http/use-attempt';
import { StatedLine } from '@/ui/odrl/stated-line';

type StateWords = Readonly<Record<Brought['state'], string>>;
type Props = {
  /** What each policy in a file would come to. @throws CallError */
  readonly look: (text: string) => Promise<{ readonly brought: readonly Brought[] }>;
  /** Takes what would change. @throws CallError */
  readonly take: (text: string) => Promise<Imported>;
  /** What stands before the button that picks a file. */
  readonly head: ReactNode;
  readonly pick: string;
  readonly stateWords: StateWords;
  /** What is done with what would change, before the number. */
  readonly verb: string;
  readonly done: (taken: Imported) => string;
  /** Shown between what would change and the buttons. */
  readonly children?: ReactNode;
} & Pick<Attempt, 'attempt' | 'busy'>;

type Picked = {
  readonly file: string;
  readonly text: string;
  readonly rows: readonly Brought[];
};

const TAKES: ReadonlySet<Brought['state']> = new Set(['new', 'changed', 'revoked']);
const tone: Partial<Record<Brought['state'], string>> = {
  stopped: 'magenta',
  changed: 'lamp',
  revoked: 'magenta',
  same: 'quiet',
};

/** Picks an ODRL file, shows what each policy in it would come to, and takes what is understood. */
export function ImportedOdrl(props: Props) {
  const { look, take, head, pick, attempt, busy } = props;
  const [picked, setPicked] = useState<Picked | null>(null);
  const read = (file: File) =>
    attempt(async () => {
      const text = await file.slice(0, LARGEST_ODRL + 1).text();
      const { brought } = await look(text);
      setPicked({ file: file.name, text, rows: brought });
    });
  const accept = async ({ text }: Picked) => {
    if (await attempt(() => take(text), props.done)) setPicked(null);
  };
  return (
    <div className="stack">
      <div className="row">
        {head}
        <FileButton words={pick} busy={busy} onFile={(file) => void read(file)} />
      </div>
      {picked !== null && (
        <WhatIsIn
          {...props}
          picked={picked}
          onTake={() => void accept(picked)}
          onCancel={() => {
            setPicked(null);
          }}
        />
      )}
    </div>
  );
}

function FileButton({
  words,
  busy,
  onFile,
}: {
  readonly words: string;
  readonly busy: boolean;
  readonly onFile: (file: File) => void;
}) {
  return (
    <Button component="label" className="nowrap" disabled={busy}>
      {words}
      <input
        type="file"
        hidden
        accept=".jsonld,.json,application/ld+json"
        aria-label="ODRL file"
        onChange={({ target }) => {
          const file = target.files?.item(0);
          if (file != null) onFile(file);
          target.value = '';
        }}
      />
    </Button>
  );
}

/** What is in the file, and the two answers. */
function WhatIsIn({
  picked: { file, rows },
  stateWords,
  verb,
  busy,
  children,
  onTake,
  onCancel,
}: Pick<Props, 'stateWords' | 'verb' | 'busy' | 'children'> & {
  readonly picked: Picked;
  readonly onTake: () => void;
  readonly onCancel: () => void;
}) {
  const takes = rows.filter(({ state }) => TAKES.has(state)).length;
  return (
    <>
      <p>
        <b>{file}</b>:{' '}
        {takes === 0
          ? 'nothing would change.'
          : `${String(takes)} of ${String(rows.length)} would change something.`}
      </p>
      <div className="choice-list" tabIndex={0} role="region" aria-label="What is in the file">
        <Table className="list flush">
          <TableBody>
            {rows.map((row, index) => (
              <BroughtRow key={index} row={row} stateWords={stateWords} />
            ))}
          </TableBody>
        </Table>
      </div>
      {takes > 0 && children}
      <div className="row">
        <Button variant="contained" disabled={busy || takes === 0} onClick={onTake}>
          {verb} {takes}
        </Button>
        <Button variant="text" onClick={onCancel}>
          Cancel
        </Button>
      </div>
    </>
  );
}

function BroughtRow({
  row: { name, state, before, terms, unknown },
  stateWords,
}: {
  readonly row: Brought;
  readonly stateWords: StateWords;
}) {
  return (
    <TableRow>
      <TableCell width="30%">
        <b>{name}</b>
      </TableCell>
      <TableCell>
        {before !== null && (
          <div className="quiet">
            now: <StatedLine terms={before} />
          </div>
        )}
        {terms !== null && (
          <div>
            {before !== null && 'then: '}
            <StatedLine terms={terms} />
          </div>
        )}
        {unknown.map(({ path, what }) => (
          <div key={path + what} className="magenta">
            <span className="figure">{path}</span> {what}
          </div>
        ))}
      </TableCell>
      <TableCell width="190" className={tone[state]}>
        {stateWords[state]}
      </TableCell>
    </TableRow>
  );
}
