'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { GiveResult, Lacking } from '@/contracts/lacking';
import { termsAt } from '@/core/policy/saved-terms';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { rightsLine } from '@/core/policy/rights-line';

/** What stands for the terms that nobody chose. */
const AS_USUAL = 'as-usual';

type Props = {
  /** Where the list comes from and what is chosen goes to. */
  readonly path: string;
  /** What the chosen are called there. */
  readonly field: 'documents' | 'recipients';
  readonly ask: string;
  readonly title: string;
  readonly disabled: boolean;
  /** What came of it, for so many. */
  readonly done: (given: number) => string;
};

/** What is not held, documents by a person or a document by people, to give several at once. */
export function GivePanel({ path, field, ask, title, disabled, done }: Props) {
  const { busy, said, attempt } = useAttempt();
  const [lacking, setLacking] = useState<Lacking | null>(null);
  const [search, setSearch] = useState('');
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [chosen, setChosen] = useState(AS_USUAL);
  const look = (q: string) =>
    attempt(async () => {
      setLacking(await call<Lacking>('GET', `${path}?q=${encodeURIComponent(q)}`));
    });
  if (lacking === null)
    return (
      <div className="stack">
        <div className="row">
          <Button disabled={busy || disabled} onClick={() => void look('')}>
            {ask}
          </Button>
        </div>
        <Notice said={said} />
      </div>
    );

  const all = lacking.rows.length > 0 && lacking.rows.every(({ id }) => ticked.has(id));
  const tick = (ids: readonly string[], on: boolean) => {
    setTicked((before) => {
      const after = new Set(before);
      for (const id of ids) {
        if (on) after.add(id);
        else after.delete(id);
      }
      return after;
    });
  };
  const asUsual = { ...lacking.begin, id: AS_USUAL, name: 'Default' };
  const terms = [asUsual, ...lacking.terms].find(({ id }) => id === chosen) ?? asUsual;
  const give = async () => {
    const given = () =>
      call<GiveResult>('POST', path, {
        [field]: [...ticked],
        terms: termsAt(terms, lacking.now),
        watermark: terms.watermark,
      });
    const well = await attempt(given, ({ waits }) =>
      waits
        ? 'This needs a second person. Nothing is given until they approve it on Today.'
        : `${done(ticked.size)} No mail was sent. The link is on the dispatch.`,
    );
    if (!well) return;
    setTicked(new Set());
    setLacking(null);
  };
  return (
    <section className="stack" aria-label={title}>
      <h2>
        {title} <span className="figure">{lacking.total}</span>
      </h2>
      <form
        className="row"
        onSubmit={(event) => {
          event.preventDefault();
          void look(search);
        }}
      >
        <TextField
          label="Search"
          value={search}
          onChange={(event) => {
            setSearch(event.target.value);
          }}
        />
        <Button type="submit" disabled={busy}>
          Find
        </Button>
      </form>
      <div
        style={{ maxHeight: 280, overflow: 'auto' }}
        tabIndex={0}
        role="region"
        aria-label={`${title}, to choose from`}
      >
        <Table className="list">
          <TableBody>
            <TableRow>
              <TableCell width="32">
                <input
                  type="checkbox"
                  className="tick"
                  aria-label="Select all of these"
                  checked={all}
                  onChange={(event) => {
                    tick(
                      lacking.rows.map(({ id }) => id),
                      event.target.checked,
                    );
                  }}
                />
              </TableCell>
              <TableCell className="quiet">
                {lacking.total > lacking.rows.length
                  ? `the first ${String(lacking.rows.length)}`
                  : 'all of them'}
              </TableCell>
            </TableRow>
            {lacking.rows.map((row) => (
              <TableRow key={row.id}>
                <TableCell>
                  <input
                    type="checkbox"
                    className="tick"
                    aria-label={`Select ${row.name}`}
                    checked={ticked.has(row.id)}
                    onChange={(event) => {
                      tick([row.id], event.target.checked);
                    }}
                  />
                </TableCell>
                <TableCell>
                  {row.name}
                  <br />
                  <span className="quiet small">
                    {row.detail}
                    {row.once !== null && (
                      <span className="lamp">
                        {' '}
                        · {row.once === 'revoked' ? 'was revoked' : 'expired'}
                      </span>
                    )}
                  </span>
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </div>
      <TextField
        select
        label="Terms"
        sx={{ marginTop: 1 }}
        value={terms.id}
        onChange={(event) => {
          setChosen(event.target.value);
        }}
        helperText={
          `${rightsLine(terms.rights, terms.prints)}, ` +
          (terms.days === null ? 'no end' : `${String(terms.days)} days`)
        }
      >
        {[asUsual, ...lacking.terms].map(({ id, name }) => (
          <MenuItem key={id} value={id}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <div className="row">
        <Button
          variant="contained"
          disabled={busy || ticked.size === 0}
          onClick={() => void give()}
        >
          Give {ticked.size}
        </Button>
        <Button
          variant="text"
          onClick={() => {
            setLacking(null);
          }}
        >
          Cancel
        </Button>
      </div>
      <Notice said={said} />
    </section>
  );
}
