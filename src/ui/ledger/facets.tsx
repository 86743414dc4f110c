'use client';

import type { LedgerInput, LedgerPage } from '@/contracts/ledger';
import { KINDS } from '@/core/insight/kinds';
import { FacetTally } from '@/ui/ledger/facet-tally';

const MOST = 5;

/** How many entries there are of each kind, reason, place and organisation, each a filter. */
export function Facets({
  facets,
  filter,
}: {
  readonly facets: LedgerPage['facets'];
  readonly filter: LedgerInput;
}) {
  const kinds = KINDS.flatMap((kind) => facets.kinds.filter((count) => count.value === kind));
  return (
    <div className="facets">
      <FacetTally
        dimension="kind"
        title="What"
        most={KINDS.length}
        facet={{ values: kinds, all: kinds.length }}
        filter={filter}
      />
      <FacetTally
        dimension="reason"
        title="Why refused"
        most={MOST}
        facet={facets.reasons}
        filter={filter}
      />
      <FacetTally
        dimension="place"
        title="Place"
        most={MOST}
        facet={facets.places}
        filter={filter}
      />
      <FacetTally
        dimension="organisation"
        title="Organisation"
        most={MOST}
        facet={facets.organisations}
        filter={filter}
      />
    </div>
  );
}
