'use client';

import { useMemo, useState } from 'react';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { MarkingRow } from '@/contracts/marking';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';
import type { Column } from '@/ui/tables/column';
import { DataTable } from '@/ui/tables/data-table';

const MarkingForm = dynamic(() =>
  import('@/ui/terms/marking-form').then((form) => form.MarkingForm),
);

type Props = {
  readonly markings: readonly MarkingRow[];
  readonly mayChange: boolean;
  readonly attempt: Attempt['attempt'];
};

/** The organisation's own list of protective markings. */
export function MarkingsPart(props: Props) {
  const { markings, mayChange, attempt } = props;
  const [open, setOpen] = useState<MarkingRow | 'new' | null>(null);
  return (
    <section aria-label="Markings" className="last-part">
      <div className="row part-head">
        <h1 className="large">Markings</h1>
        <span className="quiet">in order, the strictest last</span>
        <span className="gap" />
        {mayChange && (
          <Button
            onClick={() => {
              setOpen('new');
            }}
          >
            Add a marking
          </Button>
        )}
      </div>
      {markings.length === 0 ? (
        <p className="quiet part-none">There are none yet.</p>
      ) : (
        <MarkingsTable {...props} onOpen={setOpen} />
      )}
      {open !== null && (
        <MarkingForm
          key={open === 'new' ? 'new' : open.id}
          of={open === 'new' ? null : open}
          attempt={attempt}
          onClose={() => {
            setOpen(null);
          }}
        />
      )}
    </section>
  );
}

function MarkingsTable({
  markings,
  mayChange,
  attempt,
  onOpen,
}: Props & { readonly onOpen: (marking: MarkingRow) => void }) {
  const columns = useMemo(
    (): readonly Column<MarkingRow>[] => [
      { id: 'name', header: 'Name', width: 170, cell: ({ name }) => <b>{name}</b> },
      { id: 'meaning', header: 'Meaning', width: 300, cell: ({ meaning }) => meaning },
      {
        id: 'documents',
        header: 'Documents',
        width: 92,
        kind: 'number',
        orderBy: ({ documents }) => documents,
        cell: ({ id, documents }) => (
          <Link prefetch={false} href={`/documents?marking=${id}`}>
            {documents}
          </Link>
        ),
      },
      {
        id: 'acts',
        header: '',
        width: 230,
        cell: (marking) =>
          mayChange && (
            <MarkingActs
              marking={marking}
              isFirst={marking === markings[0]}
              attempt={attempt}
              onOpen={onOpen}
            />
          ),
      },
    ],
    [markings, mayChange, attempt, onOpen],
  );
  return (
    <DataTable
      id="markings"
      label="Markings"
      columns={columns}
      rows={markings}
      keyOf={({ id }) => id}
    />
  );
}

function MarkingActs({
  marking,
  isFirst,
  attempt,
  onOpen,
}: {
  readonly marking: MarkingRow;
  readonly isFirst: boolean;
  readonly attempt: Attempt['attempt'];
  readonly onOpen: (marking: MarkingRow) => void;
}) {
  const { id, name, meaning } = marking;
  return (
    <div className="row tight ends">
      {!isFirst && (
        <Button
          variant="text"
          aria-label={`Move ${name} up`}
          onClick={() =>
            void attempt(() => api('POST /api/v1/markings', { id, name, meaning, up: true }))
          }
        >
          Up
        </Button>
      )}
      <Button
        variant="text"
        onClick={() => {
          onOpen(marking);
        }}
      >
        Change
      </Button>
      {marking.documents === 0 && (
        <Button
          variant="text"
          onClick={() =>
            void attempt(() => api('DELETE /api/v1/markings/:id', { id }), `“${name}” is removed.`)
          }
        >
          Remove
        </Button>
      )}
    </div>
  );
}
