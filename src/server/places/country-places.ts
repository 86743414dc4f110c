import { readFileSync } from 'node:fs';
import path from 'node:path';
import { geoArea, geoCentroid } from 'd3';
import type { Feature, MultiPolygon, Polygon } from 'geojson';
import countries from 'i18n-iso-countries/index.js';
import { Reader, type CountryResponse } from 'mmdb-lib';
import { feature } from 'topojson-client';
import type { GeometryCollection, Topology } from 'topojson-specification';
import { plainAddress, type Places, type Spot } from '@/server/places/places';

/** This database has the code itself where others nest it. */
type CountryRecord = CountryResponse & { readonly country_code?: string };
type Land = Feature<Polygon | MultiPolygon>;

const MAP = path.resolve('node_modules/world-atlas/countries-50m.json');

/** The middle of a country's largest piece: of the mainland, not of the sea between it and far islands. */
function middleOf({ geometry }: Land): Spot {
  const pieces = geometry.type === 'Polygon' ? [geometry.coordinates] : geometry.coordinates;
  const [largest] = pieces
    .map((coordinates): Polygon => ({ type: 'Polygon', coordinates }))
    .sort((a, b) => geoArea(b) - geoArea(a));
  return largest === undefined ? [0, 0] : geoCentroid(largest);
}

function spotsByCode(): Map<string, Spot> {
  const atlas = JSON.parse(readFileSync(MAP, 'utf8')) as Topology<{
    countries: GeometryCollection;
  }>;
  const { features } = feature(atlas, atlas.objects.countries);
  return new Map(
    features.flatMap((each): [string, Spot][] => {
      const code = countries.numericToAlpha2(String(each.id ?? ''));
      return code === undefined ? [] : [[code, middleOf(each as Land)]];
    }),
  );
}

/**
 * Countries of network addresses, from a country database in MaxMind DB format. Addresses that
 * belong to no country, such as those of one's own network, have no place.
 */
export function createCountryPlaces(file: string): Places {
  const reader = new Reader<CountryRecord>(readFileSync(file));
  const names = new Intl.DisplayNames('en', { type: 'region' });
  const codes = new Map<string, string>();
  let spots: Map<string, Spot> | null = null;
  const nameOf = (code: string): string => {
    const name = names.of(code) ?? code;
    codes.set(name, code);
    return name;
  };
  // Names are looked up by a server that restarted since they were recorded, too.
  for (const code of Object.keys(countries.getAlpha2Codes())) nameOf(code);
  return {
    find: (network) => {
      const code = recordOf(reader, plainAddress(network))?.country_code;
      return code === undefined
        ? null
        : { name: nameOf(code), accuracy: 'the whole country', country: code };
    },
    locate: (name) => {
      spots ??= spotsByCode();
      return spots.get(codes.get(name) ?? '') ?? null;
    },
  };
}

function recordOf(reader: Reader<CountryRecord>, address: string): CountryRecord | null {
  try {
    return reader.get(address);
  } catch {
    // Not an address: what stands for one that is unknown.
    return null;
  }
}
