'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { DocumentRow, DocumentsPage } from '@/contracts/document';
import type { DocumentId } from '@/core/base/ids';
import { ChipLink } from '@/ui/shell/chips';
import { FilingBar } from '@/ui/documents/filing-bar';
import { FolderLine } from '@/ui/documents/folder-line';
import { ProtectPanel } from '@/ui/documents/protect-panel';
import { sizeText } from '@/ui/words/size-words';
import { InspectPanel } from '@/ui/files/inspect-panel';
import { useHolds } from '@/ui/shell/permissions';
import { ListHead } from '@/ui/shell/list-head';
import { LongTable } from '@/ui/tables/long-table';
import { addressWith, useSearchInAddress } from '@/ui/tables/use-address';
import { useMore } from '@/ui/tables/use-more';
import { Moment } from '@/ui/time/moment';
import { audience } from '@/ui/words/addressee-words';
import { EntriesFigure } from '@/ui/words/entries-figure';

const WIDTHS = [
  '44px',
  '27%',
  '13%',
  '14%',
  '11%',
  '62px',
  '72px',
  '64px',
  '62px',
  '150px',
  '110px',
];

/** Documents by folder and marking, with the place to protect new ones and to file many at once. */
export function DocumentsView({ page }: { readonly page: DocumentsPage }) {
  const protects = useHolds('protect');
  const { folders, markings, colleagues, filter } = page;
  const empty =
    page.total === 0 &&
    filter.q === '' &&
    filter.folder === undefined &&
    filter.marking === undefined;
  const [search, setSearch] = useState(filter.q);
  const [adding, setAdding] = useState(empty);
  const [said, setSaid] = useState<string | null>(null);
  const [inspecting, setInspecting] = useState(false);
  const [ticked, setTicked] = useState<ReadonlySet<DocumentId>>(new Set());
  const searchIn = useSearchInAddress('/documents', filter);
  const list = useMore<DocumentRow>('/api/v1/documents', filter, page);
  const tick = (ids: readonly DocumentId[], on: boolean) => {
    setTicked((before) => {
      const after = new Set(before);
      for (const id of ids) {
        if (on) after.add(id);
        else after.delete(id);
      }
      return after;
    });
  };
  const all = list.rows.length > 0 && list.rows.every((row) => ticked.has(row.id));

  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <ListHead
            title="Documents"
            words={
              `${page.total.toLocaleString('en-GB')} ` +
              (filter.folder === undefined && filter.marking === undefined && filter.q === ''
                ? 'in all'
                : 'here')
            }
            search={search}
            onSearch={(text) => {
              setSearch(text);
              searchIn(text);
            }}
            placeholder="title, reference, owner, attribute"
          >
            <Button
              aria-expanded={inspecting}
              onClick={() => {
                setInspecting(!inspecting);
              }}
            >
              {inspecting ? 'Close' : 'Inspect a file'}
            </Button>
            {protects && (
              <Button
                aria-expanded={adding}
                onClick={() => {
                  setAdding(!adding);
                }}
              >
                {adding ? 'Close' : 'Protect files'}
              </Button>
            )}
          </ListHead>
          <FolderLine folders={folders} filter={filter} mayChange={protects} />
          {markings.length > 0 && (
            <div className="row above-6">
              <span className="quiet small">
                Marked
              </span>
              {markings.map((marking) => (
                <ChipLink
                  key={marking.id}
                  title={marking.meaning}
                  aria-current={filter.marking === marking.id}
                  href={addressWith('/documents', {
                    ...filter,
                    marking: filter.marking === marking.id ? undefined : marking.id,
                  })}
                >
                  {marking.name} <span className="figure quiet">{marking.documents}</span>
                </ChipLink>
              ))}
            </div>
          )}
          {protects && adding && (
            <div className="above-12">
              <ProtectPanel
                taken={list.rows.map((row) => row.reference)}
                folderId={filter.folder ?? null}
                markings={markings}
                recovery={page.recovery}
              />
            </div>
          )}
          {inspecting && (
            <div className="above-12">
              <InspectPanel />
            </div>
          )}
          {protects && ticked.size > 0 && (
            <FilingBar
              documents={[...ticked]}
              titles={list.rows.filter((row) => ticked.has(row.id)).map((row) => row.title)}
              folders={folders}
              markings={markings}
              colleagues={colleagues}
              onDone={(words) => {
                setTicked(new Set());
                setSaid(words ?? null);
              }}
            />
          )}
          {said !== null && (
            <p role="status" className="notice above-8">
              {said}
            </p>
          )}
          {list.problem !== null && (
            <p role="alert" className="notice stops">
              {list.problem}
            </p>
          )}
        </div>
        {list.rows.length === 0 ? (
          <Nothing empty={empty} search={filter.q} />
        ) : (
          <LongTable
            label="Documents"
            widths={WIDTHS}
            height={33}
            rows={list.rows}
            total={list.total}
            keyOf={(row) => row.id}
            onMore={list.more}
            head={
              <tr>
                <th>
                  <input
                    type="checkbox"
                    className="tick"
                    aria-label="Select all that are shown"
                    disabled={!protects}
                    checked={all}
                    onChange={(event) => {
                      tick(
                        list.rows.map((row) => row.id),
                        event.target.checked,
                      );
                    }}
                  />
                </th>
                <th>Title</th>
                <th>Reference</th>
                <th>Marking</th>
                <th>Owner</th>
                <th className="number">Pages</th>
                <th className="number">Size</th>
                <th className="number">People</th>
                <th className="number">Opens</th>
                <th>Protected</th>
                <th>State</th>
              </tr>
            }
            row={(row) => (
              <>
                <td>
                  <input
                    type="checkbox"
                    className="tick"
                    aria-label={`Select ${row.title}`}
                    disabled={!protects}
                    checked={ticked.has(row.id)}
                    onChange={(event) => {
                      tick([row.id], event.target.checked);
                    }}
                  />
                </td>
                <td>
                  <Link prefetch={false} href={`/documents/${row.id}`} title={row.title}>
                    {row.title}
                  </Link>
                  {row.version > 1 && <span className="figure quiet"> v{row.version}</span>}
                </td>
                <td className="figure">{row.reference}</td>
                <td>{row.marking ?? <span className="quiet">none</span>}</td>
                <td>{row.ownerName}</td>
                <td className="number">{row.pages}</td>
                <td className="number">{sizeText(row.bytes)}</td>
                <td className="number">
                  {row.unknown ? (
                    <span title={audience(row.people, true)}>
                      {row.people === 0 ? 'unknown' : `${String(row.people)}+`}
                    </span>
                  ) : (
                    row.people
                  )}
                </td>
                <td className="number">
                  <EntriesFigure n={row.opens} of={{ document: row.id, kind: 'opened' }} />
                </td>
                <td>
                  <Moment at={row.protectedAt} />
                </td>
                <td>
                  {row.revoked ? (
                    <span className="magenta">revoked</span>
                  ) : row.people === 0 && !row.unknown ? (
                    <span className="quiet">not dispatched</span>
                  ) : (
                    'sent'
                  )}
                </td>
              </>
            )}
          />
        )}
      </div>
    </main>
  );
}

function Nothing({ empty, search }: { readonly empty: boolean; readonly search: string }) {
  if (empty)
    return (
      <div className="empty">
        <h2>No documents yet</h2>
        <p>
          Drop a PDF above. It is encrypted on its way in, and can then be dispatched to people
          outside.
        </p>
      </div>
    );
  if (search === '')
    return (
      <div className="empty">
        <h2>This folder is empty</h2>
        <p>
          Select documents elsewhere and move them here, or{' '}
          <Link href="/documents">show all of them</Link>.
        </p>
      </div>
    );
  return (
    <div className="empty">
      <h2>Nothing matches</h2>
      <p>
        No title, reference, owner or attribute here contains “{search}”.{' '}
        <Link href="/documents">Show all documents</Link>
      </p>
    </div>
  );
}
