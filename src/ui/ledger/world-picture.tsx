'use client';

import Link from 'next/link';
import { geoEqualEarth, geoGraticule10, geoPath, scaleSqrt, type GeoPermissibleObjects } from 'd3';
import { feature } from 'topojson-client';
import type { GeometryCollection, Topology } from 'topojson-specification';
import atlas from 'world-atlas/land-110m.json';
import type { LedgerInput, LedgerPage } from '@/contracts/ledger';
import { addressOf, isWanted, wanting, without } from '@/ui/ledger/ledger-address';

const WIDTH = 268;
const HEIGHT = 138;
const LARGEST = 11;
/** Degrees left around the outermost spots, so that a single place is seen with its coasts. */
const AROUND = 9;

// The shipped file's type as the compiler infers it from JSON is too loose for the library.
const topology = atlas as unknown as Topology<{ land: GeometryCollection }>;
const land = feature(topology, topology.objects.land);

/** The stretch of the world that holds all spots. */
function frameOf(spots: LedgerPage['map']['spots']): GeoPermissibleObjects {
  if (spots.length === 0) return { type: 'Sphere' };
  const [east, north] = [spots.map(({ at }) => at[0]), spots.map(({ at }) => at[1])];
  const corners = [
    [Math.min(...east) - AROUND, Math.min(...north) - AROUND],
    [Math.max(...east) + AROUND, Math.min(Math.max(...north) + AROUND, 84)],
  ];
  return { type: 'MultiPoint', coordinates: corners };
}

/** Where entries came from, each place a disc and a filter; and how many could not be placed. */
export function WorldPicture({
  map,
  filter,
}: {
  readonly map: LedgerPage['map'];
  readonly filter: LedgerInput;
}) {
  const { spots, unplaced } = map;
  const projection = geoEqualEarth().fitExtent(
    [
      [4, 4],
      [WIDTH - 4, HEIGHT - 4],
    ],
    frameOf(spots),
  );
  const path = geoPath(projection);
  const radius = scaleSqrt()
    .domain([0, Math.max(1, ...spots.map(({ entries }) => entries))])
    .range([2, LARGEST]);
  return (
    <figure className="world">
      <svg
        width={WIDTH}
        height={HEIGHT}
        viewBox={`0 0 ${String(WIDTH)} ${String(HEIGHT)}`}
        role="group"
        aria-label="Places on the map"
      >
        <rect width={WIDTH} height={HEIGHT} className="sea" />
        <path d={path(geoGraticule10()) ?? ''} className="graticule" />
        <path d={path(land) ?? ''} className="land" />
        {spots.map(({ place, entries, at }) => {
          const [x, y] = projection([at[0], at[1]]) ?? [0, 0];
          const chosen = isWanted(filter, 'place', place);
          return (
            <Link
              prefetch={false}
              key={place}
              href={addressOf('/ledger', (chosen ? without : wanting)(filter, 'place', place), {})}
              scroll={false}
              aria-label={`${place}: ${entries.toLocaleString('en-GB')} entries`}
              aria-current={chosen ? 'true' : undefined}
            >
              <circle cx={x} cy={y} r={radius(entries)} className="spot">
                <title>{`${place}: ${entries.toLocaleString('en-GB')}`}</title>
              </circle>
            </Link>
          );
        })}
      </svg>
      <figcaption className="quiet">
        {spots.length === 0 ? 'No place is known.' : 'Places are approximate.'}{' '}
        {unplaced > 0 && `${unplaced.toLocaleString('en-GB')} could not be placed.`}
      </figcaption>
    </figure>
  );
}
