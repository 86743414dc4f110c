/** An approximate place, from a network address. */
export type Place = {
  readonly name: string;
  /** How sure it is, to be read behind the name: `within about 50 km`, `the whole country`. */
  readonly accuracy: string;
  /** ISO 3166-1 alpha-2, where the country is known. */
  readonly country: string | null;
};

/** Longitude and latitude in degrees. */
export type Spot = readonly [number, number];

export type Places = {
  /** The place of a network address, or `null` where it is not known. */
  readonly find: (network: string) => Place | null;
  /** Where a place of this name lies, or `null` where that is not known. */
  readonly locate: (name: string) => Spot | null;
};

/** Without the prefix that an IPv4 address carries on an IPv6 socket. */
export function plainAddress(network: string): string {
  return network.startsWith('::ffff:') ? network.slice(7) : network;
}
