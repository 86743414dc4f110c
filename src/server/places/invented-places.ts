import { plainAddress, type Place, type Places, type Spot } from '@/server/places/places';

type Row = {
  readonly prefix: string;
  readonly name: string;
  readonly km: number;
  readonly country: string;
  readonly at: Spot;
};

/**
 * An invented coast over the documentation networks (RFC 5737), for the demo, in countries of codes
 * that ISO 3166-1 leaves to users. Longer prefixes stand first.
 */
const TABLE: readonly Row[] = [
  { prefix: '203.0.113.12', name: 'Pellmouth', km: 25, country: 'XA', at: [-4.2, 50.4] },
  { prefix: '203.0.113.15', name: 'Sable Bay', km: 50, country: 'XB', at: [6.2, 62.6] },
  { prefix: '203.0.113.6', name: 'Tarvik', km: 50, country: 'XB', at: [14.4, 67.3] },
  { prefix: '203.0.113.', name: 'Port Brackwater', km: 50, country: 'XA', at: [-1.6, 55] },
  { prefix: '198.51.100.20', name: 'Costa Brume', km: 100, country: 'XC', at: [-8.7, 42.2] },
  { prefix: '198.51.100.4', name: 'Norrmark', km: 50, country: 'XB', at: [10.4, 63.4] },
  { prefix: '198.51.100.8', name: 'Ferrow', km: 25, country: 'XA', at: [-6.2, 57.4] },
  { prefix: '198.51.100.', name: 'Kelder', km: 50, country: 'XC', at: [9.9, 53.5] },
  { prefix: '192.0.2.', name: 'Aldery', km: 25, country: 'XA', at: [0.9, 51.1] },
];

export const inventedPlaces: Places = {
  find: (network): Place | null => {
    const found = TABLE.find(({ prefix }) => plainAddress(network).startsWith(prefix));
    return found === undefined
      ? null
      : {
          name: found.name,
          accuracy: `within about ${String(found.km)} km`,
          country: found.country,
        };
  },
  locate: (name) => TABLE.find((row) => row.name === name)?.at ?? null,
};
