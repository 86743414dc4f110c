'use client';

import { useState, type ReactNode } from 'react';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { LARGEST_ODRL, type Brought } from '@/contracts/odrl';
import { call } from '@/ui/http/call';
import type { Attempt } from '@/ui/http/use-attempt';
import { StatedLine } from '@/ui/odrl/stated-line';

type Taken = { readonly taken: number; readonly waiting?: number };
type Props = {
  /** Where what is in a file is looked at, and where it is taken from. */
  readonly path: string;
  /** What stands before the button that picks a file. */
  readonly head: ReactNode;
  readonly pick: string;
  /** What taking it needs besides the file. */
  readonly also?: Readonly<Record<string, string>>;
  readonly stateWords: Readonly<Record<Brought['state'], string>>;
  /** What is done with what would change, before the number. */
  readonly verb: string;
  readonly done: (taken: Taken) => string;
  /** Shown between what would change and the buttons. */
  readonly children?: ReactNode;
} & Pick<Attempt, 'attempt' | 'busy'>;

const TAKES: ReadonlySet<Brought['state']> = new Set(['new', 'changed', 'revoked']);
const tone: Partial<Record<Brought['state'], string>> = {
  stopped: 'magenta',
  changed: 'lamp',
  revoked: 'magenta',
  same: 'quiet',
};

/** Picks an ODRL file, shows what each policy in it would come to, and takes what is understood. */
export function ImportedOdrl({
  path,
  head,
  pick: label,
  also = {},
  stateWords,
  verb,
  done,
  children,
  attempt,
  busy,
}: Props) {
  const [brought, setBrought] = useState<{
    readonly file: string;
    readonly text: string;
    readonly rows: readonly Brought[];
  } | null>(null);
  const pick = (file: File | undefined) =>
    file !== undefined &&
    attempt(async () => {
      const text = await file.slice(0, LARGEST_ODRL + 1).text();
      const { brought: rows } = await call<{ readonly brought: readonly Brought[] }>(
        'POST',
        `${path}/preview`,
        { text },
      );
      setBrought({ file: file.name, text, rows });
    });
  const takes = brought?.rows.filter(({ state }) => TAKES.has(state)).length ?? 0;
  const take = async () => {
    if (
      brought !== null &&
      (await attempt(() => call<Taken>('POST', path, { text: brought.text, ...also }), done))
    )
      setBrought(null);
  };
  const picker = (
    <Button component="label" disabled={busy}>
      {label}
      <input
        type="file"
        hidden
        accept=".jsonld,.json,application/ld+json"
        aria-label="ODRL file"
        onChange={(event) => {
          void pick(event.target.files?.item(0) ?? undefined);
          event.target.value = '';
        }}
      />
    </Button>
  );
  const top = (
    <div className="row">
      {head}
      {picker}
    </div>
  );
  if (brought === null) return top;
  return (
    <div className="stack">
      {top}
      <p>
        <b>{brought.file}</b>:{' '}
        {takes === 0
          ? 'nothing would change.'
          : `${String(takes)} of ${String(brought.rows.length)} would change something.`}
      </p>
      <div
        style={{ maxHeight: 340, overflow: 'auto' }}
        tabIndex={0}
        role="region"
        aria-label="What is in the file"
      >
        <Table className="list flush">
          <TableBody>
            {brought.rows.map((row, index) => (
              <TableRow key={index}>
                <TableCell width="30%">
                  <b>{row.name}</b>
                </TableCell>
                <TableCell>
                  {row.before !== null && (
                    <div className="quiet">
                      now: <StatedLine terms={row.before} />
                    </div>
                  )}
                  {row.terms !== null && (
                    <div>
                      {row.before !== null && 'then: '}
                      <StatedLine terms={row.terms} />
                    </div>
                  )}
                  {row.unknown.map(({ path: place, what }) => (
                    <div key={place + what} className="magenta">
                      <span className="figure">{place}</span> {what}
                    </div>
                  ))}
                </TableCell>
                <TableCell className={tone[row.state] ?? ''} width="190">
                  {stateWords[row.state]}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </div>
      {takes > 0 && children}
      <div className="row">
        <Button variant="contained" disabled={busy || takes === 0} onClick={() => void take()}>
          {verb} {takes}
        </Button>
        <Button
          variant="text"
          onClick={() => {
            setBrought(null);
          }}
        >
          Cancel
        </Button>
      </div>
    </div>
  );
}
