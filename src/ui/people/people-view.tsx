'use client';

import { useMemo, useState } from 'react';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { ListPeopleInput, PeoplePage, PersonDetail, PersonRow } from '@/contracts/people';
import { counted } from '@/core/base/counted';
import type { RecipientId } from '@/core/base/ids';
import { GroupsLine } from '@/ui/people/groups-line';
import { useAttempt } from '@/ui/http/use-attempt';
import { peopleColumns, peopleTicks } from '@/ui/people/people-columns';
import { TickedPeople } from '@/ui/people/ticked-people';
import { ChipLink } from '@/ui/shell/chips';
import { Empty } from '@/ui/shell/empty';
import { ListHead } from '@/ui/shell/list-head';
import { Notice, Problem } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/permissions';
import { DataTable } from '@/ui/tables/data-table';
import { useTicks } from '@/ui/tables/ticks';
import { addressWith, useSearchInAddress } from '@/ui/tables/use-address';
import { useMore } from '@/ui/tables/use-more';
import { useOrderInAddress } from '@/ui/tables/use-order-in-address';

/** Fetched when somebody is chosen, or a list is taken in. */
const PersonPanel = dynamic(() =>
  import('@/ui/people/person-panel').then((panel) => panel.PersonPanel),
);
const AddToPeople = dynamic(() =>
  import('@/ui/people/add-people').then((part) => part.AddToPeople),
);
const ImportPeople = dynamic(() =>
  import('@/ui/people/import-people').then((part) => part.ImportPeople),
);

function isNarrowed({ q, organisation, group }: ListPeopleInput): boolean {
  return q !== '' || organisation !== undefined || group !== undefined;
}

/** Everybody outside who was added or ever sent something, with what they hold now. */
export function PeopleView({
  page,
  filter,
  person,
  now,
}: {
  readonly page: PeoplePage;
  readonly filter: ListPeopleInput;
  readonly person: PersonDetail | null;
  readonly now: number;
}) {
  return (
    <main className="work">
      <PeopleSurface page={page} filter={filter} chosen={person} />
      <aside className="side" aria-label="The selected person">
        {person === null ? (
          <p className="quiet">
            Select a person to see what they can open, what they opened and what was refused.
          </p>
        ) : (
          <PersonPanel key={person.id} person={person} now={now} />
        )}
      </aside>
    </main>
  );
}

function PeopleSurface({
  page,
  filter,
  chosen,
}: {
  readonly page: PeoplePage;
  readonly filter: ListPeopleInput;
  readonly chosen: PersonDetail | null;
}) {
  const id = chosen?.id;
  const [search, setSearch] = useState(filter.q);
  const [part, setPart] = useState<'add' | 'import' | null>(null);
  const ticks = useTicks<RecipientId>();
  const { busy, said, attempt } = useAttempt();
  const query = useMemo(() => ({ ...filter, person: id }), [filter, id]);
  const searchIn = useSearchInAddress('/people', query);
  const order = useOrderInAddress('/people', query);
  const list = useMore<PersonRow>('/api/v1/people', filter, page);
  const imports = useHolds('settings');
  const adds = useHolds('dispatch');
  const columns = useMemo(
    () => [...(adds ? [peopleTicks(list.rows, ticks)] : []), ...peopleColumns(filter, id)],
    [adds, list.rows, ticks, filter, id],
  );
  const toggle = (which: 'add' | 'import') => {
    setPart(part === which ? null : which);
  };
  return (
    <div className="surface">
      <div className="head">
        <ListHead
          title="People"
          words={`${page.total.toLocaleString('en-GB')} in ${counted(page.organisations, 'organisation')}`}
          search={search}
          onSearch={(text) => {
            setSearch(text);
            searchIn(text);
          }}
          placeholder="name, email address, organisation"
        >
          {adds && (
            <Button
              aria-expanded={part === 'add'}
              onClick={() => {
                toggle('add');
              }}
            >
              {part === 'add' ? 'Close' : 'Add people'}
            </Button>
          )}
          {imports && (
            <Button
              aria-expanded={part === 'import'}
              onClick={() => {
                toggle('import');
              }}
            >
              {part === 'import' ? 'Close' : 'Import and export'}
            </Button>
          )}
        </ListHead>
        {part === 'add' && <AddToPeople groups={page.groups} />}
        {part === 'import' && <ImportPeople />}
        {page.groups.length > 0 && <GroupsLine groups={page.groups} filter={filter} />}
        {filter.organisation !== undefined && (
          <div className="row above-8">
            <ChipLink
              className="on"
              aria-label={`Remove the filter ${filter.organisation}`}
              href={addressWith('/people', { ...filter, organisation: undefined })}
            >
              {filter.organisation} ✕
            </ChipLink>
          </div>
        )}
        {ticks.ticked.size > 0 && (
          <TickedPeople
            ids={[...ticks.ticked]}
            groups={page.groups}
            shown={filter.group}
            busy={busy}
            attempt={attempt}
            onDone={ticks.clear}
          />
        )}
        <Notice said={said} />
        <Problem words={list.problem} />
      </div>
      {list.rows.length > 0 ? (
        <DataTable
          id="people"
          label="People"
          columns={columns}
          rows={list.rows}
          total={list.total}
          onMore={list.more}
          order={order}
          keyOf={(row) => row.id}
          isSelected={(row) => row.id === id}
          fills={47}
        />
      ) : (
        <Nobody search={filter.q} narrowed={isNarrowed(filter)} />
      )}
    </div>
  );
}

function Nobody({ search, narrowed }: { readonly search: string; readonly narrowed: boolean }) {
  if (!narrowed)
    return (
      <Empty title="No people yet">
        People appear here when they are added, or with the first dispatch that names them.{' '}
        <Link href="/compose">Compose a dispatch</Link>
      </Empty>
    );
  return (
    <Empty title="Nobody matches">
      {search === ''
        ? 'Nobody is in here. '
        : `No name, email address or organisation contains “${search}”. `}
      <Link href="/people">Show everybody</Link>
    </Empty>
  );
}
