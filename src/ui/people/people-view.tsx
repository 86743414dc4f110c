'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { ListPeopleInput, PeoplePage, PersonDetail, PersonRow } from '@/contracts/people';
import { ChipLink } from '@/ui/shell/chips';
import { ImportPeople } from '@/ui/people/import-people';
import { useHolds } from '@/ui/shell/permissions';
import { GroupsLine } from '@/ui/people/groups-line';
import { PersonPanel } from '@/ui/people/person-panel';
import { ListHead } from '@/ui/shell/list-head';
import { LongTable } from '@/ui/tables/long-table';
import { addressWith, useSearchInAddress } from '@/ui/tables/use-address';
import { useMore } from '@/ui/tables/use-more';
import { Moment } from '@/ui/time/moment';
import { EntriesFigure } from '@/ui/words/entries-figure';

const WIDTHS = ['33%', '25%', '90px', '84px', '62px', '152px'];

/** Everybody outside who was ever sent something, with what they hold now. */
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
  const [search, setSearch] = useState(filter.q);
  const searchIn = useSearchInAddress('/people', { ...filter, person: person?.id });
  const list = useMore<PersonRow>('/api/v1/people', filter, page);
  const brings = useHolds('settings');
  const [bringing, setBringing] = useState(false);
  const nobody =
    page.total === 0 &&
    filter.q === '' &&
    filter.organisation === undefined &&
    filter.group === undefined;
  return (
    <main className="work">
      <div className="surface">
        <div className="head">
          <ListHead
            title="People"
            words={
              `${page.total.toLocaleString('en-GB')} in ` +
              `${page.organisations.toLocaleString('en-GB')} ` +
              (page.organisations === 1 ? 'organisation' : 'organisations')
            }
            search={search}
            onSearch={(text) => {
              setSearch(text);
              searchIn(text);
            }}
            placeholder="name, address, organisation"
          >
            {brings && (
              <Button
                aria-expanded={bringing}
                onClick={() => {
                  setBringing(!bringing);
                }}
              >
                {bringing ? 'Close' : 'Import and export'}
              </Button>
            )}
          </ListHead>
          {bringing && <ImportPeople />}
          {page.groups.length > 0 && <GroupsLine groups={page.groups} filter={filter} />}
          {filter.organisation !== undefined && (
            <div className="row above-8">
              <ChipLink
                aria-label={`Remove the filter ${filter.organisation}`}
                href={addressWith('/people', { ...filter, organisation: undefined })}
              >
                {filter.organisation} ✕
              </ChipLink>
            </div>
          )}
          {list.problem !== null && (
            <p role="alert" className="notice stops">
              {list.problem}
            </p>
          )}
        </div>
        {nobody && (
          <div className="empty">
            <h2>No people yet</h2>
            <p>
              People appear here with the first dispatch that names them.{' '}
              <Link href="/compose">Compose a dispatch</Link>
            </p>
          </div>
        )}
        {!nobody && list.rows.length === 0 && (
          <div className="empty">
            <h2>Nobody matches</h2>
            <p>
              No name, address or organisation contains “{filter.q}”.{' '}
              <Link href="/people">Show everybody</Link>
            </p>
          </div>
        )}
        {list.rows.length > 0 && (
          <LongTable
            label="People"
            widths={WIDTHS}
            height={47}
            rows={list.rows}
            total={list.total}
            keyOf={(row) => row.id}
            onMore={list.more}
            head={
              <tr>
                <th>Name</th>
                <th>Organisation</th>
                <th className="number">Documents</th>
                <th className="number">Can open</th>
                <th className="number">Opens</th>
                <th>Last open</th>
              </tr>
            }
            row={(row) => (
              <>
                <td>
                  <Link
                    prefetch={false}
                    href={addressWith('/people', { ...filter, person: row.id })}
                    scroll={false}
                    aria-current={row.id === person?.id ? 'true' : undefined}
                  >
                    {row.name === '' ? row.address : row.name}
                  </Link>
                  {row.blocked && <span className="magenta"> blocked</span>}
                  <br />
                  <span className="quiet small">
                    {row.address}
                  </span>
                </td>
                <td>
                  {row.organisation === '' ? (
                    <span className="quiet">not known</span>
                  ) : (
                    <Link className="plain"
                      prefetch={false}
                      href={addressWith('/people', { ...filter, organisation: row.organisation })}
                    >
                      {row.organisation}
                    </Link>
                  )}
                </td>
                <td className="number">{row.documents}</td>
                <td className="number">
                  {row.live === 0 ? <span className="quiet">0</span> : row.live}
                </td>
                <td className="number">
                  <EntriesFigure n={row.opens} of={{ recipient: row.id, kind: 'opened' }} />
                </td>
                <td>
                  {row.lastOpen === null ? (
                    <span className="quiet">never</span>
                  ) : (
                    <Moment at={row.lastOpen} />
                  )}
                </td>
              </>
            )}
          />
        )}
      </div>
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
