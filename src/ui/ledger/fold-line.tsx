'use client';

import Link from 'next/link';
import type { LedgerInput, LedgerPage } from '@/contracts/ledger';
import { zoneName } from '@/core/base/moment-text';
import { addressOf } from '@/ui/ledger/ledger-address';
import { useZone } from '@/ui/time/use-zone';

/** Whether pages and keys are folded into their open, and by which clock the times are. */
export function FoldLine({
  page,
  filter,
  newest,
}: {
  readonly page: Pick<LedgerPage, 'folded' | 'zone'>;
  readonly filter: LedgerInput;
  readonly newest: string;
}) {
  const zone = useZone();
  const zoneWords = `Times in ${zone}, ${newest.slice(0, 4)} (${zoneName(Date.parse(newest), zone)})`;
  return (
    <p className="quiet small fold-line">
      <Folded page={page} filter={filter} /> {zoneWords}
      {page.zone === zone ? '' : `; days in ${page.zone}`}.
    </p>
  );
}

function Folded({
  page,
  filter,
}: {
  readonly page: Pick<LedgerPage, 'folded'>;
  readonly filter: LedgerInput;
}) {
  if (page.folded)
    return (
      <>
        Pages and keys are folded into their open.{' '}
        <Link prefetch={false} href={addressOf('/ledger', filter, { each: 'yes' })}>
          Show every entry
        </Link>
      </>
    );
  if (filter.each === undefined) return 'Every entry is shown separately.';
  return (
    <>
      Every entry is shown separately.{' '}
      <Link prefetch={false} href={addressOf('/ledger', filter, { each: undefined })}>
        Fold into opens
      </Link>
    </>
  );
}
