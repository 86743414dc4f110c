'use client';

import { useMemo, useState } from 'react';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { DocumentRow, DocumentsPage, ListDocumentsInput } from '@/contracts/document';
import type { MarkingRow } from '@/contracts/marking';
import type { DocumentId } from '@/core/base/ids';
import { folderMarking } from '@/core/content/folders';
import { documentColumns } from '@/ui/documents/document-columns';
import { FilingBar } from '@/ui/documents/filing-bar';
import { FolderLine } from '@/ui/documents/folder-line';
import { ChipLink } from '@/ui/shell/chips';
import { Empty } from '@/ui/shell/empty';
import { useHolds } from '@/ui/shell/permissions';
import { ListHead } from '@/ui/shell/list-head';
import { Notice, Problem } from '@/ui/shell/notice';
import { DataTable } from '@/ui/tables/data-table';
import { tickColumn, useTicks } from '@/ui/tables/ticks';
import { addressWith, useSearchInAddress } from '@/ui/tables/use-address';
import { useMore } from '@/ui/tables/use-more';
import { useOrderInAddress } from '@/ui/tables/use-order-in-address';

/** Fetched when they are opened. */
const ProtectPanel = dynamic(() =>
  import('@/ui/documents/protect-panel').then((panel) => panel.ProtectPanel),
);
const InspectPanel = dynamic(() =>
  import('@/ui/files/inspect-panel').then((panel) => panel.InspectPanel),
);

function isNarrowed({ q, folder, marking }: ListDocumentsInput): boolean {
  return q !== '' || folder !== undefined || marking !== undefined;
}

/** Documents by folder and marking, with the place to protect new ones and to file many at once. */
export function DocumentsView({ page }: { readonly page: DocumentsPage }) {
  const protects = useHolds('protect');
  const { folders, markings, colleagues, filter } = page;
  const here = filter.folder ?? null;
  const empty = page.total === 0 && !isNarrowed(filter);
  const [search, setSearch] = useState(filter.q);
  const [shown, setShown] = useState<What | null>(empty && protects ? 'protect' : null);
  const [said, setSaid] = useState<string | null>(null);
  const searchIn = useSearchInAddress('/documents', filter);
  const list = useMore<DocumentRow>('/api/v1/documents', filter, page);
  const ticks = useTicks<DocumentId>();
  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <ListHead
            title="Documents"
            words={`${page.total.toLocaleString('en-GB')} ${isNarrowed(filter) ? 'here' : 'in all'}`}
            search={search}
            onSearch={(text) => {
              setSearch(text);
              searchIn(text);
            }}
            placeholder="title, reference, owner, attribute"
          >
            <Opener words="Inspect a file" what="inspect" shown={shown} onShow={setShown} />
            {protects && (
              <Opener words="Protect files" what="protect" shown={shown} onShow={setShown} />
            )}
          </ListHead>
          <FolderLine folders={folders} filter={filter} markings={markings} mayChange={protects} />
          <MarkingLine markings={markings} filter={filter} />
          {shown === 'protect' && (
            <ProtectPanel
              taken={list.rows.map((row) => row.reference)}
              folderId={here}
              folderMarking={folderMarking(folders, here)}
              markings={markings}
              recovery={page.recovery}
            />
          )}
          {shown === 'inspect' && <InspectPanel />}
          {ticks.ticked.size > 0 && (
            <FilingBar
              documents={[...ticks.ticked]}
              titles={list.rows.filter((row) => ticks.ticked.has(row.id)).map((row) => row.title)}
              folders={folders}
              markings={markings}
              colleagues={colleagues}
              onDone={(words) => {
                ticks.clear();
                setSaid(words ?? null);
              }}
            />
          )}
          <Notice said={said === null ? null : { text: said, stops: false }} />
          <Problem words={list.problem} />
        </div>
        {list.rows.length === 0 ? (
          <Nothing empty={empty} search={filter.q} />
        ) : (
          <DocumentsTable list={list} filter={filter} ticks={ticks} may={protects} />
        )}
      </div>
    </main>
  );
}

type What = 'protect' | 'inspect';

/** Opens a part below the head, or closes it again. */
function Opener({
  words,
  what,
  shown,
  onShow,
}: {
  readonly words: string;
  readonly what: What;
  readonly shown: What | null;
  readonly onShow: (what: What | null) => void;
}) {
  return (
    <Button
      aria-expanded={shown === what}
      onClick={() => {
        onShow(shown === what ? null : what);
      }}
    >
      {shown === what ? 'Close' : words}
    </Button>
  );
}

function MarkingLine({
  markings,
  filter,
}: {
  readonly markings: readonly MarkingRow[];
  readonly filter: ListDocumentsInput;
}) {
  if (markings.length === 0) return null;
  return (
    <div className="row above-6">
      <span className="quiet small">Marked</span>
      {markings.map(({ id, name, meaning, documents }) => (
        <ChipLink
          key={id}
          title={meaning}
          aria-current={filter.marking === id}
          href={addressWith('/documents', {
            ...filter,
            marking: filter.marking === id ? undefined : id,
          })}
        >
          {name} <span className="figure quiet">{documents}</span>
        </ChipLink>
      ))}
    </div>
  );
}

function DocumentsTable({
  list,
  filter,
  ticks,
  may,
}: {
  readonly list: ReturnType<typeof useMore<DocumentRow>>;
  readonly filter: ListDocumentsInput;
  readonly ticks: ReturnType<typeof useTicks<DocumentId>>;
  readonly may: boolean;
}) {
  const order = useOrderInAddress('/documents', filter);
  const { rows } = list;
  const columns = useMemo(
    () => [
      tickColumn<DocumentRow, DocumentId>({
        rows,
        ticks,
        idOf: (row) => row.id,
        nameOf: (row) => row.title,
        may: () => may,
        all: 'Select all that are shown',
      }),
      ...documentColumns,
    ],
    [rows, ticks, may],
  );
  return (
    <DataTable
      id="documents"
      label="Documents"
      columns={columns}
      rows={rows}
      total={list.total}
      onMore={list.more}
      order={order}
      keyOf={(row) => row.id}
      fills={33}
    />
  );
}

function Nothing({ empty, search }: { readonly empty: boolean; readonly search: string }) {
  if (empty)
    return (
      <Empty title="No documents yet">
        Drop a file above. It is encrypted on its way in, and can then be dispatched to people
        outside.
      </Empty>
    );
  if (search === '')
    return (
      <Empty title="This folder is empty">
        Select documents elsewhere and move them here, or{' '}
        <Link href="/documents">show all of them</Link>.
      </Empty>
    );
  return (
    <Empty title="Nothing matches">
      No title, reference, owner or attribute here contains “{search}”.{' '}
      <Link href="/documents">Show all documents</Link>
    </Empty>
  );
}
