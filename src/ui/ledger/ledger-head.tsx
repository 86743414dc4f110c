'use client';

import Link from 'next/link';
import Button from '@mui/material/Button';
import type { LedgerInput, LedgerPage } from '@/contracts/ledger';
import type { OpensInput } from '@/contracts/opens';
import { momentText } from '@/core/base/moment-text';
import { FilterChips } from '@/ui/ledger/filter-chips';
import { FindFilter } from '@/ui/ledger/find-filter';
import { addressOf } from '@/ui/ledger/ledger-address';
import { SavedViews } from '@/ui/views/saved-views';
import { useZone } from '@/ui/time/use-zone';
import { opensAddress } from '@/ui/words/opens-address';

function only(values: readonly string[] | undefined): string | undefined {
  return values?.length === 1 ? values[0] : undefined;
}

/** What of these filters the opens can be narrowed by as well: by one of each. */
function opensFilterOf({
  document,
  dispatch,
  recipient,
  organisation,
  from,
  to,
}: LedgerInput): OpensInput {
  return {
    document: only(document),
    dispatch: only(dispatch),
    recipient: only(recipient),
    organisation: only(organisation),
    from: from?.slice(0, 10),
    to: to?.slice(0, 10),
  };
}

/** How much there is, the filters in force, and what can be done with what they let through. */
export function LedgerHead({
  page,
  filter,
  verifying,
  onVerify,
}: {
  readonly page: LedgerPage;
  readonly filter: LedgerInput;
  readonly verifying: boolean;
  readonly onVerify: () => void;
}) {
  return (
    <div className="head">
      <div className="row">
        <h1>Ledger</h1>
        <Size page={page} />
        <span className="gap" />
        {page.everything && (
          <Button aria-expanded={verifying} onClick={onVerify}>
            Verify
          </Button>
        )}
        <Button component={Link} href={opensAddress('/ledger/opens', opensFilterOf(filter))}>
          Opens by person
        </Button>
        <Button component="a" href={addressOf('/api/v1/ledger/export', filter, {})} download>
          Export {page.total.toLocaleString('en-GB')}
        </Button>
      </div>
      <div className="row above-8">
        <FindFilter key={JSON.stringify(filter)} filter={filter} />
        <FilterChips filter={filter} named={page.named} mine={page.everything} />
      </div>
      <SavedViews
        place="ledger"
        views={page.views}
        query={addressOf('', filter, {}).replace(/^\?/, '')}
      />
    </div>
  );
}

/** Entries in all, and how many are signed; whose, where they are not all. */
function Size({ page: { everything, size, signedAt, signedSize } }: { readonly page: LedgerPage }) {
  const zone = useZone();
  const signed = signedAt === null ? 'none' : signedSize.toLocaleString('en-GB');
  return (
    <span
      className="figure quiet"
      title={signedAt === null ? undefined : `Signed ${momentText(signedAt, zone)}`}
    >
      {everything
        ? `${size.toLocaleString('en-GB')} entries, ${signed} signed`
        : 'of your documents, your dispatches, your acts'}
    </span>
  );
}
