'use client';

import type { ReactNode } from 'react';
import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Popover from '@mui/material/Popover';
import TextField from '@mui/material/TextField';
import { counted } from '@/core/base/counted';
import { setOpens, setPrints } from '@/core/compose/columns';
import type { GroupId } from '@/core/base/ids';
import {
  addRows,
  changeRows,
  giveDocument,
  removeRows,
  rowOf,
  type Row,
} from '@/core/compose/sheet';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { Problem } from '@/ui/shell/notice';
import { whoWords } from '@/ui/words/addressee-words';
import { endAfter } from '@/core/policy/saved-terms';
import type { Terms } from '@/core/policy/rights';
import { nameOf, type GridDocument, type GridRow } from '@/ui/recipients/grid-view';
import { cellId } from '@/ui/recipients/grid-row';
import type { Editing, Grid } from '@/ui/recipients/use-grid';
import { ChipButton } from '@/ui/shell/chips';
import { ConditionsFields } from '@/ui/terms-fields/conditions-fields';
import { MomentField } from '@/ui/time/moment-field';

type Props = {
  readonly grid: Grid;
  readonly terms: Terms;
  readonly rows: readonly GridRow[];
  readonly documents: readonly GridDocument[];
  readonly now: number;
  /** Where keys go once it is closed. */
  readonly onClosed: () => void;
};

/** What is changed at once, in words: whose terms an editor is about. */
function targetWords({ target }: Grid, rows: readonly GridRow[]): string {
  if (target === 'common') return 'the common terms';
  const [only] = rows.filter(({ row }) => target.has(row.key));
  return target.size === 1 && only !== undefined
    ? nameOf(only) || only.row.key
    : counted(target.size, 'recipient');
}

/** The editor of the active cell, beside it. */
export function GridEditor(props: Props) {
  const { grid, rows, onClosed } = props;
  const { editing, place } = grid;
  if (editing === null) return null;
  return (
    <Popover
      open
      anchorEl={() => document.getElementById(cellId(place.key, place.column)) ?? document.body}
      anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
      onClose={grid.close}
      slotProps={{
        transition: { onExited: onClosed },
        paper: {
          className: editing.column === 'conditions' ? 'grid-editor wide' : 'grid-editor',
          'aria-label': 'Edit',
          role: 'dialog',
        },
      }}
      transitionDuration={0}
      disableRestoreFocus
    >
      <div className="stack loose">
        <h2>For {targetWords(grid, rows)}</h2>
        <EditorOf {...props} editing={editing} />
      </div>
    </Popover>
  );
}

function EditorOf({ editing, ...props }: Props & { readonly editing: Editing }): ReactNode {
  switch (editing.column) {
    case 'ends':
      return <EndsEditor {...props} typed={editing.typed} />;
    case 'print':
      return <PrintsEditor {...props} />;
    case 'opens':
      return <OpensEditor {...props} />;
    case 'documents':
      return <DocumentsEditor {...props} />;
    case 'who':
      return <NameEditor {...props} />;
    default:
      return <ConditionsEditor {...props} />;
  }
}

const SPANS = [
  { days: 7, name: '1 week' },
  { days: 14, name: '2 weeks' },
  { days: 30, name: '30 days' },
  { days: 90, name: '90 days' },
] as const;

/** When it ends: in so many days, at a moment, or not at all. */
function EndsEditor({ grid, terms, now, typed }: Props & { readonly typed: number | null }) {
  const [days, setDays] = useState(typed === null ? '' : String(typed));
  const endIn = (n: number) => {
    grid.setTerms((each) => ({ ...each, until: endAfter(now, n) }));
    grid.close();
  };
  return (
    <>
      <form
        className="row one-row"
        onSubmit={(event) => {
          event.preventDefault();
          const n = Math.floor(Number(days));
          if (n >= 1 && n <= 3_650) endIn(n);
        }}
      >
        <TextField
          label="In days"
          type="number"
          value={days}
          autoFocus
          className="narrow"
          onChange={({ target }) => {
            setDays(target.value);
          }}
          slotProps={{ htmlInput: { min: 1, max: 3_650 } }}
        />
        <Button type="submit" disabled={days === ''}>
          Set
        </Button>
      </form>
      <div className="row">
        {SPANS.map(({ days: n, name }) => (
          <ChipButton
            key={n}
            onClick={() => {
              endIn(n);
            }}
          >
            in {name}
          </ChipButton>
        ))}
        <ChipButton
          onClick={() => {
            grid.setTerms((each) => ({ ...each, until: null }));
            grid.close();
          }}
        >
          No end
        </ChipButton>
      </div>
      <MomentField
        label="Ends"
        value={terms.until}
        none="No end"
        onChange={(until) => {
          grid.setTerms((each) => ({ ...each, until }));
        }}
      />
      <MomentField
        label="Not before"
        value={terms.from}
        none="From the dispatch on"
        onChange={(from) => {
          grid.setTerms((each) => ({ ...each, from }));
        }}
      />
    </>
  );
}

function CountEditor({
  label,
  value,
  most,
  onSet,
}: {
  readonly label: string;
  readonly value: number | null;
  readonly most: number;
  readonly onSet: (n: number | null) => void;
}) {
  const [text, setText] = useState(value === null ? '' : String(value));
  return (
    <form
      className="row one-row"
      onSubmit={(event) => {
        event.preventDefault();
        const n = Math.floor(Number(text));
        onSet(text === '' || n < 1 ? null : Math.min(n, most));
      }}
    >
      <TextField
        label={label}
        type="number"
        value={text}
        autoFocus
        helperText="Empty: no limit"
        onChange={({ target }) => {
          setText(target.value);
        }}
        slotProps={{ htmlInput: { min: 1, max: most } }}
      />
      <Button type="submit">Set</Button>
    </form>
  );
}

function PrintsEditor({ grid, terms }: Props) {
  return (
    <CountEditor
      label="Prints each"
      value={terms.prints}
      most={999}
      onSet={(n) => {
        grid.setTerms((each) => setPrints(each, n).terms);
        grid.close();
      }}
    />
  );
}

function OpensEditor({ grid, terms }: Props) {
  return (
    <CountEditor
      label="Opens each"
      value={terms.conditions?.opens ?? null}
      most={9_999}
      onSet={(n) => {
        grid.setTerms((each) => setOpens(each, n));
        grid.close();
      }}
    />
  );
}

function ConditionsEditor({ grid, terms }: Props) {
  return (
    <ConditionsFields
      begun
      value={terms.conditions}
      onChange={(conditions) => {
        grid.setTerms(({ conditions: _before, ...each }) =>
          conditions === undefined ? each : { ...each, conditions },
        );
      }}
    />
  );
}

/** Which of the documents these recipients are given. */
function DocumentsEditor({ grid, rows, documents }: Props) {
  const { target } = grid;
  const theirs = rows.filter(({ row }) => target !== 'common' && target.has(row.key));
  const lacking = (id: Row['without'][number]) =>
    theirs.filter(({ row }) => row.without.includes(id)).length;
  return (
    <div className="short-list">
      {documents.map(({ id, title, reference }) => {
        const n = lacking(id);
        return (
          <FormControlLabel
            key={id}
            control={
              <Checkbox
                checked={n === 0}
                indeterminate={n > 0 && n < theirs.length}
                onChange={(_event, on) => {
                  grid.changeSheet((sheet, keys) => giveDocument(sheet, keys, id, on));
                }}
              />
            }
            label={
              <>
                {title} <span className="figure quiet">{reference}</span>
              </>
            }
          />
        );
      })}
    </div>
  );
}

/** The name and organisation of somebody who is not known yet; of a group, who that is. */
function NameEditor({ grid, rows }: Props) {
  const [each] = rows.filter(({ row }) => row.key === grid.place.key);
  if (each === undefined) return null;
  if (each.row.kind === 'group') return <GroupEditor grid={grid} group={each.row.key as GroupId} />;
  if (each.row.kind !== 'person') return <p className="quiet">{whoWords[each.row.kind]}</p>;
  if (each.known?.known === true)
    return <p className="quiet">{each.row.key}. Known people are changed under People.</p>;
  const { key, name, organisation } = each.row;
  const set = (part: Partial<Row>) => {
    grid.changeSheet((sheet) => changeRows(sheet, new Set([key]), (row) => ({ ...row, ...part })));
  };
  return (
    <>
      <TextField
        label="Name"
        autoFocus
        value={name}
        onChange={({ target }) => {
          set({ name: target.value.slice(0, 120) });
        }}
      />
      <TextField
        label="Organisation"
        value={organisation}
        onChange={({ target }) => {
          set({ organisation: target.value.slice(0, 120) });
        }}
      />
    </>
  );
}

/** A group that follows its members, or the people who are in it now instead. */
function GroupEditor({ grid, group }: { readonly grid: Grid; readonly group: GroupId }) {
  const { busy, problem, attempt } = useAttempt();
  return (
    <>
      <p className="quiet">
        People who join later get access, people who leave lose it. Or give it to the people who are
        in it now, one by one.
      </p>
      <div className="row">
        <Button
          disabled={busy}
          onClick={() =>
            void attempt(async () => {
              const { addresses } = await api('GET /api/v1/groups/:id/members', { id: group });
              grid.changeSheet((sheet) =>
                addRows(
                  removeRows(sheet, new Set([group])),
                  addresses.map((address) => rowOf(address, 'person')),
                ),
              );
              grid.close();
            })
          }
        >
          Use current members only
        </Button>
      </div>
      <Problem words={problem} />
    </>
  );
}
