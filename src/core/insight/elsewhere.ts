import { groupBy } from '@/core/base/group';

/** Where somebody of an organisation was: first day and how many entries in all. */
export type Seen = {
  readonly organisation: string;
  readonly place: string;
  readonly first: string;
  readonly entries: number;
};

/** An organisation seen where nobody of theirs was seen before. `usual`: where they mostly were until then. */
export type Elsewhere = {
  readonly organisation: string;
  readonly place: string;
  readonly opens: number;
  readonly since: string;
  readonly usual: readonly string[];
};

/** Places named as usual. */
const USUAL = 3;

/**
 * Places an organisation was first seen at on or after a day, the newest first. One that was never
 * seen before that day is new altogether, and nothing about it is unusual.
 */
export function seenElsewhere(seen: readonly Seen[], since: string): Elsewhere[] {
  return [
    ...groupBy(
      seen.filter(({ organisation, place }) => organisation !== '' && place !== ''),
      ({ organisation }) => organisation,
    ).values(),
  ]
    .flatMap((own) => {
      const usual = own
        .filter(({ first }) => first < since)
        .sort((a, b) => b.entries - a.entries)
        .slice(0, USUAL)
        .map(({ place }) => place);
      return usual.length === 0
        ? []
        : own
            .filter(({ first }) => first >= since)
            .map(({ organisation, place, first, entries }) => ({
              organisation,
              place,
              opens: entries,
              since: first,
              usual,
            }));
    })
    .sort((a, b) => (a.since === b.since ? b.opens - a.opens : a.since < b.since ? 1 : -1));
}
