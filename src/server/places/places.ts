/** An approximate place, from a network address. */
export type Place = { readonly name: string; readonly country: string; readonly withinKm: number };

/** Finds the place of a network address, or `null` where it is not known. */
export type Places = { readonly find: (network: string) => Place | null };

/** Knows nothing: used until a database of places is set up. */
export const noPlaces: Places = { find: () => null };

/** An invented table over the documentation networks (RFC 5737), for the demo. */
export const inventedPlaces: Places = {
  find: (network) => {
    const found = TABLE.find(([prefix]) => network.startsWith(prefix));
    return found === undefined ? null : found[1];
  },
};

const TABLE: readonly (readonly [string, Place])[] = [
  ['203.0.113.6', { name: 'Tarvik', country: 'Norrland Isles', withinKm: 50 }],
  ['203.0.113.12', { name: 'Pellmouth', country: 'Aldery', withinKm: 25 }],
  ['203.0.113.15', { name: 'Sable Bay', country: 'Norrland Isles', withinKm: 50 }],
  ['203.0.113.', { name: 'Port Brackwater', country: 'Aldery', withinKm: 50 }],
  ['198.51.100.4', { name: 'Norrmark', country: 'Norrland Isles', withinKm: 50 }],
  ['198.51.100.8', { name: 'Ferrow', country: 'Aldery', withinKm: 25 }],
  ['198.51.100.', { name: 'Kelder', country: 'Aldery', withinKm: 50 }],
  ['192.0.2.', { name: 'Aldery', country: 'Aldery', withinKm: 25 }],
];
