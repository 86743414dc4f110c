import type { GrantId, StaffId } from '@/core/base/ids';
import { DAY, HOUR } from '@/core/base/time';
import { NO_LIMITS, type Ceiling } from '@/core/policy/ceiling';
import { LEVELS } from '@/core/policy/levels';
import type { Addressee, DocumentPolicy, GrantFacts } from '@/core/policy/compile';
import type { Conditions, Weekday } from '@/core/policy/conditions';
import type { Asking } from '@/core/policy/decide';
import { RIGHTS } from '@/core/policy/rights';

export const NOW = Date.parse('2026-10-25T00:30:00Z'); // The night in which Europe's clocks go back.
const STAFF: StaffId = 'stf_00000000000000000001';
const NETWORKS = [
  '192.0.2.0/24',
  '::ffff:198.51.100.0/120',
  '192.0.2.128/25',
  '198.51.100.0/24',
  '203.0.113.7/32',
  '0.0.0.0/0',
];
const COUNTRIES = ['NO', 'GB', 'DE'];

/** Numbers that follow from a seed (mulberry32): a failing policy can be made again. */
export function numbers(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** Choices that follow from a seed. */
export function randomFrom(seed: number): {
  readonly int: (below: number) => number;
  readonly one: <T>(list: readonly T[]) => T;
} {
  const next = numbers(seed);
  const int = (below: number): number => Math.floor(next() * below);
  return { int, one: <T>(list: readonly T[]): T => list[int(list.length)] as T };
}

export function randomCase(seed: number): {
  readonly policy: DocumentPolicy;
  readonly asking: Asking;
} {
  const next = numbers(seed);
  const chance = (share: number): boolean => next() < share;
  const int = (below: number): number => Math.floor(next() * below);
  const one = <T>(list: readonly T[]): T => list[int(list.length)] as T;
  const some = <T>(list: readonly T[], share: number): T[] => list.filter(() => chance(share));
  const maybe = <T extends object>(share: number, make: () => T): Partial<T> =>
    chance(share) ? make() : {};
  const near = (): number => NOW + (int(7) - 3) * HOUR;

  const conditions = (): Conditions => ({
    ...maybe(0.15, () => ({ opens: int(3) })),
    ...maybe(0.15, () => ({ within: int(4) * HOUR })),
    ...maybe(0.2, () => ({ countries: some(COUNTRIES, 0.6) })),
    ...maybe(0.2, () => ({ networks: some(NETWORKS, 0.4) })),
    ...maybe(0.2, () => ({
      hours: {
        days: some<Weekday>([1, 2, 3, 4, 5, 6, 7], 0.7),
        from: int(25) * 60,
        to: int(25) * 60,
      },
    })),
    ...maybe(0.1, () => ({ rememberedDevice: true })),
    ...maybe(0.1, () => ({ passkey: chance(0.9) })),
    ...maybe(0.1, () => ({ devices: int(3) })),
    ...maybe(0.1, () => ({ proveEvery: int(3) * HOUR })),
    ...maybe(0.03, () => ({ moon: 'full' })),
    ...maybe(0.3, () => ({ offline: int(4) * HOUR })),
    ...maybe(0.2, () => ({ captureDeterrent: chance(0.8) })),
    ...maybe(0.6, () => ({
      passOn: {
        people: 1 + int(9),
        steps: 1 + int(4),
        domains: chance(0.5)
          ? some(['@yard.example', '@quill.example', '@ferrow.example'], 0.6)
          : null,
      },
    })),
  });
  const addressee = (): Addressee =>
    one<Addressee>([
      { kind: 'person', id: 'rcp_a' },
      { kind: 'person', id: 'rcp_a' },
      { kind: 'person', id: 'rcp_b' },
      { kind: 'group', id: 'grp_a' },
      { kind: 'group', id: 'grp_b' },
      { kind: 'domain', id: 'quill.example' },
      { kind: 'link', id: 'lnk_a' },
    ]);
  const ids = Array.from({ length: int(6) }, (_, i): GrantId => `grt_${String(i)}`);
  const grants = ids.map((id): GrantFacts => ({
    id,
    addressee: addressee(),
    parent: chance(0.25) ? one([...ids, 'grt_gone']) : null,
    revoked: chance(0.12),
    givenBy: STAFF,
    givenAt: NOW - int(4) * DAY,
    used: {
      opens: int(3),
      prints: int(3),
      firstOpenedAt: chance(0.5) ? NOW - int(3) * HOUR : null,
      devices: some(['dev_a', 'dev_b'], 0.4),
    },
    terms: {
      rights: RIGHTS.filter((right) => chance(right === 'read' ? 0.95 : 0.55)),
      from: chance(0.2) ? near() : null,
      until: chance(0.5) ? near() + DAY * int(2) : null,
      prints: chance(0.3) ? int(4) : null,
      conditions: conditions(),
    },
  }));
  const ceilings = Array.from({ length: chance(0.6) ? int(4) : 0 }, (_, i): Ceiling => ({
    level: one(LEVELS),
    subject: String(i),
    setBy: 'stf_a',
    setAt: int(5),
    limits: {
      ...NO_LIMITS,
      ...maybe(0.4, () => ({ rights: ['read' as const, ...some(RIGHTS.slice(1), 0.7)] })),
      ...maybe(0.3, () => ({ days: int(5) })),
      ...maybe(0.2, () => ({ prints: int(3) })),
      ...maybe(0.1, () => ({ opens: int(4) })),
      ...maybe(0.15, () => ({ countries: some(COUNTRIES, 0.6) })),
      ...maybe(0.15, () => ({ networks: some(NETWORKS, 0.5) })),
      ...maybe(0.1, () => ({ passkey: true as const })),
      ...maybe(0.2, () => ({ offline: chance(0.3) ? ('never' as const) : int(4) * HOUR })),
    },
  }));
  return {
    policy: { id: 'doc_a', revoked: chance(0.05), keyDestroyed: chance(0.05), ceilings, grants },
    asking: {
      identity: chance(0.97) ? 'proven' : 'not-proven',
      recipient: chance(0.95)
        ? {
            id: 'rcp_a',
            blocked: chance(0.05),
            groups: some(['grp_a', 'grp_b'], 0.5),
            ...maybe(0.5, () => ({ domain: 'quill.example' })),
          }
        : null,
      ...maybe(0.3, () => ({ link: 'lnk_a' })),
      at: {
        now: NOW + ((int(5) - 2) * HOUR) / 2,
        country: one([...COUNTRIES, null, 'any']),
        network: one(['192.0.2.7', '192.0.2.200', '198.51.100.9', '203.0.113.7', null, 'any']),
        zone: one(['Europe/Oslo', 'UTC', 'America/New_York', 'Asia/Kathmandu']),
        device: one([
          { id: 'dev_a', kept: true, provenAt: NOW - HOUR, passkeyAt: null },
          { id: 'dev_c', kept: false, provenAt: NOW, passkeyAt: NOW - int(3) * 6 * HOUR },
          null,
          'any',
        ]),
      },
    },
  };
}
