'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import Button from '@mui/material/Button';
import type { OpensInput, OpensPage } from '@/contracts/opens';
import { counted } from '@/core/base/counted';
import { ChipButton, ChipLink } from '@/ui/shell/chips';
import { opensAddress } from '@/ui/words/opens-address';
import { OpensTable } from '@/ui/opens/opens-table';
import { DayField } from '@/ui/time/moment-field';

const PATH = '/ledger/opens';

function totalsText({ people, totals }: OpensPage): string {
  const { opens, openedBy, refused, refusedTo, neverOpened } = totals;
  const parts = [
    `${counted(opens, 'open')} by ${counted(openedBy, 'person', 'people')}`,
    refused === 0
      ? 'nobody refused'
      : `${counted(refused, 'refusal')} to ${counted(refusedTo, 'person', 'people')}`,
    neverOpened === 0
      ? 'everybody opened something'
      : `${counted(neverOpened, 'person', 'people')} never opened anything`,
  ];
  return `${counted(people, 'person', 'people')}: ${parts.join(' · ')}`;
}

/** Who opened how often, from when to when, and who never did. */
export function OpensView({
  page,
  filter,
}: {
  readonly page: OpensPage;
  readonly filter: OpensInput;
}) {
  const router = useRouter();
  const change = (part: Partial<OpensInput>) => {
    router.push(opensAddress(PATH, filter, part));
  };
  const chips: readonly (readonly [keyof OpensInput, string | null | undefined])[] = [
    ['document', page.names.document],
    ['dispatch', page.names.dispatch],
    ['recipient', page.names.recipient],
    ['organisation', filter.organisation],
  ];
  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>Opens by person</h1>
            <span className="quiet">{totalsText(page)}</span>
            <span className="gap" />
            <Button component={Link} href="/ledger">
              All entries
            </Button>
            <Button component="a" href={opensAddress('/api/v1/ledger/opens', filter)} download>
              Export as CSV
            </Button>
          </div>
          <div className="row above-8">
            {chips.map(
              ([key, label]) =>
                label != null && (
                  <ChipLink
                    className="on"
                    key={key}
                    href={opensAddress(PATH, filter, { [key]: undefined })}
                    aria-label={`Remove the filter ${label}`}
                  >
                    {label} ×
                  </ChipLink>
                ),
            )}
            <ChipButton
              aria-pressed={filter.never === 'only'}
              onClick={() => {
                change({ never: filter.never === 'only' ? undefined : 'only' });
              }}
            >
              Never opened
            </ChipButton>
            {(['from', 'to'] as const).map((edge) => (
              <DayField
                key={edge}
                label={edge === 'from' ? 'From' : 'To'}
                value={filter[edge] ?? null}
                onChange={(day) => {
                  change({ [edge]: day ?? undefined });
                }}
              />
            ))}
            <span className="quiet small">days in {page.zone}</span>
          </div>
        </div>
        <div className="scroll">
          {page.rows.length === 0 ? (
            <div className="empty">
              <h2>Nobody</h2>
              <p>
                {filter.never === 'only'
                  ? 'Everybody has opened everything they were given.'
                  : 'Nothing was given or opened on these days.'}
              </p>
            </div>
          ) : (
            <OpensTable page={page} filter={filter} />
          )}
          {page.people > page.rows.length && (
            <p className="quiet part-none">
              and {page.people - page.rows.length} more: the totals and the export have them all.
            </p>
          )}
        </div>
      </div>
    </main>
  );
}
