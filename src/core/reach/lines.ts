import { groupBy } from '@/core/base/group';
import type { Moment } from '@/core/base/time';
import type { GrantId, RecipientId } from '@/core/base/ids';

/** One grant, as far as its picture needs it. */
export type ReachGrant = {
  readonly id: GrantId;
  readonly recipientId: RecipientId;
  readonly from: Moment | null;
  readonly until: Moment | null;
  readonly givenAt: Moment;
  readonly revokedAt: Moment | null;
  /** Since when a device has the key, and until when it reads on without asking. */
  readonly offline?: { readonly from: Moment; readonly until: Moment } | null;
};

/** What happened at one moment of a line. */
export type ReachMark = {
  readonly recipientId: RecipientId;
  readonly at: Moment;
  readonly kind: 'opened' | 'refused' | 'printed' | 'changed';
};

/**
 * A stretch of a line: readable (`live`), given but not yet open (`waiting`), cut off before its end
 * (`cut`), and over these, held on a device that reads on without asking (`offline`).
 */
export type Stretch = {
  readonly from: Moment;
  readonly until: Moment | null;
  readonly kind: 'waiting' | 'live' | 'cut' | 'offline';
};

export type ReachLine = {
  readonly recipientId: RecipientId;
  readonly grants: readonly GrantId[];
  readonly stretches: readonly Stretch[];
  /** When the last of the access ends; `null`: never. */
  readonly end: Moment | null;
  /** When the last of it was revoked, where all of it is. */
  readonly revokedAt: Moment | null;
  readonly marks: readonly ReachMark[];
};

function stretchesOf(grant: ReachGrant): Stretch[] {
  const start = Math.max(grant.from ?? grant.givenAt, grant.givenAt);
  const waiting: Stretch[] =
    start > grant.givenAt ? [{ from: grant.givenAt, until: start, kind: 'waiting' }] : [];
  if (grant.until !== null && grant.until <= start) return waiting;
  const cut = grant.revokedAt;
  if (cut === null || (grant.until !== null && cut >= grant.until))
    return [...waiting, { from: start, until: grant.until, kind: 'live' }];
  // What was revoked keeps its past; what it would still have been is not drawn.
  return cut <= start
    ? waiting.map((each) => ({ ...each, until: Math.min(each.until ?? cut, cut) }))
    : [...waiting, { from: start, until: cut, kind: 'cut' }];
}

function tailOf({ offline }: ReachGrant): Stretch[] {
  return offline == null ? [] : [{ ...offline, kind: 'offline' }];
}

/** Latest of some ends, of which `null` means never. */
function latest(ends: readonly (Moment | null)[]): Moment | null {
  return ends.includes(null) ? null : Math.max(...ends.map((end) => end ?? 0));
}

/**
 * The lines of a dispatch or a document: one for each recipient, in the order in which they first
 * come, with everything that happened on it in the order of time.
 */
export function reachLines(
  grants: readonly ReachGrant[],
  marks: readonly ReachMark[],
): ReachLine[] {
  const byPerson = groupBy(grants, (grant) => grant.recipientId);
  const marksOf = groupBy(marks, (mark) => mark.recipientId);
  return [...byPerson].map(([recipientId, own]) => {
    const standing = own.filter((grant) => grant.revokedAt === null);
    return {
      recipientId,
      grants: own.map((grant) => grant.id),
      // What is held on a device lies over what it was given by.
      stretches: [
        ...own
          .flatMap(stretchesOf)
          .filter(({ from, until }) => until === null || until > from)
          .sort((a, b) => a.from - b.from),
        ...own.flatMap(tailOf),
      ],
      end: latest((standing.length > 0 ? standing : own).map((grant) => grant.until)),
      revokedAt: standing.length > 0 ? null : Math.max(...own.map((grant) => grant.revokedAt ?? 0)),
      marks: (marksOf.get(recipientId) ?? []).toSorted((a, b) => a.at - b.at),
    };
  });
}

/** The span of time that shows every line whole, now with it, and a little air on either side. */
export function reachSpan(lines: readonly ReachLine[], now: Moment): readonly [Moment, Moment] {
  const moments = lines.flatMap((line) => [
    ...line.stretches.flatMap(({ from, until }) => [from, until ?? now]),
    ...line.marks.map((mark) => mark.at),
    line.end ?? now,
  ]);
  const first = Math.min(now, ...moments);
  const last = Math.max(now, ...moments);
  const air = Math.max(last - first, 3_600_000) * 0.04;
  // More of it behind, so that an end can be dragged further out.
  return [first - air, last + 3 * air];
}
