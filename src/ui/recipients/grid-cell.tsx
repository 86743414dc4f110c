'use client';

import { bareDomain } from '@/core/policy/address';
import { isRightColumn, otherConditions } from '@/core/compose/columns';
import type { Row } from '@/core/compose/sheet';
import type { Right, Terms } from '@/core/policy/rights';
import { momentText } from '@/core/base/moment-text';
import {
  isChangeable,
  nameOf,
  organisationOf,
  type GridColumn,
  type GridRow,
} from '@/ui/recipients/grid-view';
import { COMMON } from '@/ui/recipients/use-grid';
import { useZone } from '@/ui/time/use-zone';

/** What stands in a cell. */
export function CellContent({
  column,
  each,
  documents,
}: {
  readonly column: GridColumn;
  readonly each: GridRow;
  readonly documents: number;
}) {
  if (column === 'who') return <Who each={each} />;
  if (column === 'organisation') return <Organisation each={each} />;
  if (isChangeable(column) && isRightColumn(column))
    return <RightMark right={column} terms={each.terms} />;
  if (column === 'ends') return <Ends terms={each.terms} />;
  if (column === 'opens') return <Count n={each.terms.conditions?.opens ?? null} />;
  if (column === 'conditions')
    return <Count n={Object.keys(otherConditions(each.terms)).length || null} />;
  return <Share each={each} documents={documents} />;
}

/** How many of the documents a row is given. */
function Share({ each, documents }: { readonly each: GridRow; readonly documents: number }) {
  const { key, without } = each.row;
  if (key === COMMON || without.length === 0) return <span className="quiet">all</span>;
  return (
    <span className="figure">
      {documents - without.length}/{documents}
    </span>
  );
}

const KINDS: Record<Exclude<Row['kind'], 'person'>, (row: Row) => readonly [string, string]> = {
  group: ({ name }) => [name, 'a group; follows membership'],
  domain: ({ key }) => [`Everyone at ${bareDomain(key)}`, 'anyone who proves an address there'],
  link: () => ['Anyone with the link', 'no proof is asked for'],
};

/** Who it is for, and below what is known of them. */
function Who({ each }: { readonly each: GridRow }) {
  const { row, known } = each;
  if (row.key === COMMON)
    return (
      <>
        <b>Common terms</b>
        <span className="under oneline">unless a row differs</span>
      </>
    );
  if (row.kind !== 'person') {
    const [title, below] = KINDS[row.kind](row);
    return (
      <>
        <b className="oneline-b">{title}</b>
        <span className="under oneline">
          {row.kind === 'domain' && known !== undefined
            ? `${String(known.people)} known here`
            : below}
        </span>
      </>
    );
  }
  const name = nameOf(each);
  return (
    <>
      <b className="oneline-b">{name === '' ? row.key : name}</b>
      <span className="under oneline">
        {name !== '' && row.key}
        {name === '' && known?.known === false && (
          <span className="lamp">{known.publicMail ? 'new, public mail' : 'new here'}</span>
        )}
      </span>
    </>
  );
}

/** Where they are, and whether that is this organisation. */
function Organisation({ each }: { readonly each: GridRow }) {
  const { row, known } = each;
  if (row.key === COMMON || row.kind !== 'person') return null;
  const where = organisationOf(each);
  return (
    <>
      <span className="oneline-b">{where}</span>
      <span className="under oneline">{placeWords(known)}</span>
    </>
  );
}

function placeWords(known: GridRow['known']): string {
  if (known === undefined) return '';
  if (known.inside) return 'inside';
  if (!known.known) return known.publicMail ? 'public mail, first time' : 'outside, first time';
  return known.lastSentAt === null ? 'outside, never sent to' : 'outside';
}

function RightMark({ right, terms }: { readonly right: Right; readonly terms: Terms }) {
  if (!terms.rights.includes(right))
    return (
      <svg width="10" height="10" aria-hidden="true" className="dash">
        <path d="M2 5h6" />
      </svg>
    );
  if (right === 'print' && terms.prints !== null)
    return <span className="figure current">×{terms.prints}</span>;
  return (
    <svg width="16" height="16" aria-hidden="true" className="tick">
      <path d="M3 8.5l3.5 3.5L13 4.5" />
    </svg>
  );
}

/** When it ends, and from when on it opens where that is later than the dispatch. */
function Ends({ terms: { from, until } }: { readonly terms: Terms }) {
  const zone = useZone();
  return (
    <>
      <span className={until === null ? 'figure lamp' : 'figure'}>
        {until === null ? 'no end' : momentText(until, zone)}
      </span>
      {from !== null && <span className="under figure">from {momentText(from, zone)}</span>}
    </>
  );
}

function Count({ n }: { readonly n: number | null }) {
  return n === null ? (
    <span className="quiet">–</span>
  ) : (
    <span className="figure current">{n}</span>
  );
}
