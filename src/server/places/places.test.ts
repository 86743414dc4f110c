import path from 'node:path';
import { describe, expect, test } from 'vitest';
import { createCountryPlaces } from '@/server/places/country-places';
import { inventedPlaces } from '@/server/places/invented-places';

describe('the country database', () => {
  const places = createCountryPlaces(
    path.resolve(
      'node_modules/@ip-location-db/geo-whois-asn-country-mmdb/geo-whois-asn-country.mmdb',
    ),
  );

  test('knows countries of both kinds of address, and where they lie', () => {
    // Blocks that their registries assigned to research networks long ago.
    expect(places.find('129.240.0.1')).toEqual({
      name: 'Norway',
      accuracy: 'the whole country',
      country: 'NO',
    });
    expect(places.find('::ffff:129.240.0.1')?.name).toBe('Norway');
    expect(places.find('2001:700::1')?.name).toBe('Norway');
    const [east, north] = places.locate('Norway') ?? [0, 0];
    expect(east).toBeGreaterThan(5);
    expect(east).toBeLessThan(25);
    expect(north).toBeGreaterThan(60);
  });

  test('takes the mainland for a country with far islands', () => {
    const [east, north] = places.locate('France') ?? [0, 0];
    expect(Math.abs(east - 2.5)).toBeLessThan(2);
    expect(Math.abs(north - 46.5)).toBeLessThan(2);
  });

  test.each(['10.1.2.3', '127.0.0.1', '::1', 'unknown', ''])('has no place for %s', (network) => {
    expect(places.find(network)).toBeNull();
  });

  test('says nothing where a name is no country', () => {
    expect(places.locate('Atlantis')).toBeNull();
  });
});

describe('the invented table', () => {
  test('places the documentation networks, the closer match first, and nothing else', () => {
    expect(inventedPlaces.find('203.0.113.61')?.name).toBe('Tarvik');
    expect(inventedPlaces.find('::ffff:203.0.113.99')?.name).toBe('Port Brackwater');
    expect(inventedPlaces.find('10.0.0.1')).toBeNull();
    expect(inventedPlaces.locate('Tarvik')).not.toBeNull();
    expect(inventedPlaces.locate('Nowhere')).toBeNull();
  });
});
