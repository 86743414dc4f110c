'use client';

import { useMemo } from 'react';
import type { SavedTermsRow } from '@/contracts/saved-terms';
import { counted } from '@/core/base/counted';
import { conditionLines } from '@/core/policy/condition-lines';
import { rightsLine } from '@/core/policy/rights-line';
import { Empty } from '@/ui/shell/empty';
import type { Column } from '@/ui/tables/column';
import { DataTable } from '@/ui/tables/data-table';
import { RowButton } from '@/ui/tables/row-button';
import { Moment } from '@/ui/time/moment';

function columnsOf(onOpen: (row: SavedTermsRow) => void): readonly Column<SavedTermsRow>[] {
  return [
    {
      id: 'name',
      header: 'Name',
      width: 150,
      orderBy: (row) => row.name,
      cell: (row) => (
        <RowButton
          onPress={() => {
            onOpen(row);
          }}
        >
          {row.name}
        </RowButton>
      ),
    },
    {
      id: 'rights',
      header: 'They may',
      width: 200,
      cell: (row) => (
        <>
          {rightsLine(row.rights, row.prints)}
          {conditionLines(row.conditions, 'their zone').map((line) => (
            <span key={line} className="quiet">
              ; {line}
            </span>
          ))}
        </>
      ),
    },
    {
      id: 'days',
      header: 'For',
      width: 76,
      // Without an end is longest of all.
      orderBy: (row) => row.days ?? Number.MAX_SAFE_INTEGER,
      cell: (row) =>
        row.days === null ? <span className="lamp">no end</span> : counted(row.days, 'day'),
    },
    {
      id: 'uses',
      header: 'In use',
      width: 70,
      kind: 'number',
      orderBy: (row) => row.uses,
      cell: (row) => <span title="People who have access with these terms">{row.uses}</span>,
    },
    {
      id: 'watermark',
      header: 'Watermark',
      width: 150,
      kind: 'oneline',
      cell: (row) => (
        <span className="quiet">
          {row.watermark.length === 0 ? 'none' : counted(row.watermark.length, 'layer')}
        </span>
      ),
    },
    {
      id: 'changedAt',
      header: 'Changed',
      width: 150,
      orderBy: (row) => row.changedAt,
      cell: (row) => (
        <>
          <Moment at={row.changedAt} />
          <span className="under">by {row.changedBy}</span>
        </>
      ),
    },
  ];
}

/** The terms that are saved under a name. */
export function SavedTermsPart({
  terms,
  selected,
  onOpen,
}: {
  readonly terms: readonly SavedTermsRow[];
  readonly selected: SavedTermsRow | 'new' | null;
  readonly onOpen: (row: SavedTermsRow) => void;
}) {
  const columns = useMemo(() => columnsOf(onOpen), [onOpen]);
  if (terms.length === 0)
    return (
      <Empty title="No saved terms yet">
        Save the terms you use often: what people may do, for how long, and the watermark on every
        page.
      </Empty>
    );
  return (
    <DataTable
      id="saved-terms"
      label="Saved terms"
      columns={columns}
      rows={terms}
      keyOf={({ id }) => id}
      isSelected={({ id }) => selected !== null && selected !== 'new' && id === selected.id}
    />
  );
}
