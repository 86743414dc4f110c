import 'server-only';
import { DAY, MINUTE } from '@/core/base/time';
import { momentAt } from '@/core/base/days';
import { newId } from '@/core/base/ids';
import { kindsIn, toldOf, type NoticeKind, type Opened } from '@/core/insight/notices';
import { holds } from '@/core/policy/permissions';
import { noticeMail } from '@/server/mail/notice-mail';
import { lastSequence } from '@/server/repositories/ledger/access-changes';
import { queueMail } from '@/server/repositories/mailing/mail-repository';
import { endingSoon, openedSince } from '@/server/repositories/mailing/notice-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { listStaff } from '@/server/repositories/staff/staff-repository';
import type { Deps } from '@/server/services/base/deps';
import { choicesOf, putTold, toldOfStaff, type Told } from '@/server/services/staff/notice-choices';

/** Messages at once come together within this time: a flood of refusals is one message. */
const AT_ONCE_PAUSE = 10 * MINUTE;
/** Entries looked at in one round; the rest follows in the next. */
const MOST = 20_000;
/** Entries after which it is written down how far one has looked although there was nothing to tell. */
const LOOKED = 1_000;
/** How long before an end it is told of. */
const ENDS_AHEAD = 3 * DAY;
/** When the daily message goes out, by the organisation's clock. */
const DAILY_AT = '07:00';

type Staff = Awaited<ReturnType<typeof listStaff>>[number]['row'];
type Rhythm = 'at-once' | 'daily';
type Round = {
  readonly now: number;
  readonly last: number;
  readonly zone: string;
  readonly opened: (after: number) => Promise<readonly Opened[]>;
};

function isDue(deps: Deps, rhythm: Rhythm, told: Told, { now, zone }: Round): boolean {
  // A clock that was set back must not keep somebody waiting.
  if (rhythm === 'at-once') return now - told.at >= AT_ONCE_PAUSE || told.at > now;
  const today = deps.calendar.dayOf(now);
  return told.day !== today && now >= momentAt(`${today}T${DAILY_AT}`, zone);
}

/** What somebody was told once these kinds were told up to here. */
function after(
  deps: Deps,
  told: Told,
  rhythm: Rhythm,
  kinds: readonly NoticeKind[],
  { seen, now, isTold }: { readonly seen: number; readonly now: number; readonly isTold: boolean },
): Told {
  return {
    seen: { ...told.seen, ...Object.fromEntries(kinds.map((kind) => [kind, seen])) },
    endsUpTo: kinds.includes('ending') ? now + ENDS_AHEAD : told.endsUpTo,
    at: rhythm === 'at-once' && isTold ? now : told.at,
    day: rhythm === 'daily' ? deps.calendar.dayOf(now) : told.day,
  };
}

async function tellOne(
  deps: Deps,
  staff: Staff,
  rhythm: Rhythm,
  kinds: readonly NoticeKind[],
  told: Told,
  round: Round,
): Promise<boolean> {
  const from = Math.min(...kinds.map((kind) => told.seen[kind]));
  const found = await round.opened(from);
  const seen = found.length < MOST ? round.last : (found.at(-1)?.sequence ?? from);
  const opened = toldOf(found, staff.id, kinds, told.seen);
  const ends = kinds.includes('ending')
    ? await endingSoon(deps.db.read, Math.max(told.endsUpTo, round.now), round.now + ENDS_AHEAD)
    : [];
  const ending = ends.filter(({ sender }) => sender === staff.id);
  const isTold = opened.length + ending.length > 0;
  // Nothing to say: how far one has looked is written down only now and then.
  if (!isTold && rhythm === 'at-once' && seen - from < LOOKED) return false;
  const mail = noticeMail({
    opened,
    kinds,
    ending,
    daily: rhythm === 'daily',
    zone: round.zone,
    link: `${deps.publicUrl}/ledger`,
  });
  return deps.db.write(async (tx) => {
    // Another process may have told them meanwhile, or they have chosen otherwise.
    const current = await toldOfStaff(tx, staff.id);
    if (JSON.stringify(current) !== JSON.stringify(told)) return false;
    await putTold(tx, staff.id, after(deps, told, rhythm, kinds, { seen, now: round.now, isTold }));
    if (!isTold) return false;
    await queueMail(tx, [
      {
        id: newId('message', deps.random),
        toAddress: staff.email,
        ...mail,
        state: 'waiting',
        urgent: false,
        nextAttemptAt: round.now,
        createdAt: round.now,
      },
    ]);
    return true;
  });
}

/**
 * Tells those of the staff who chose so of first opens, refusals, new places and ends to come of
 * what they answer for: at once, what comes within ten minutes together, or in one message a day.
 *
 * @returns how many messages are on their way
 */
export async function sendNotices(deps: Deps): Promise<number> {
  const db = deps.db.read;
  const staff = (await listStaff(db))
    .map(({ row }) => row)
    .filter(({ disabledAt, role }) => disabledAt === null && holds(role, 'look'));
  const known = new Map<number, Promise<readonly Opened[]>>();
  const last = await lastSequence(db);
  const opened = (from: number): Promise<readonly Opened[]> => {
    const asked = known.get(from) ?? openedSince(db, from, last, MOST);
    known.set(from, asked);
    return asked;
  };
  const zone = (await findOrganisation(db))?.zone ?? 'UTC';
  const round: Round = { now: deps.clock.now(), last, zone, opened };
  let sent = 0;
  for (const each of staff) {
    const choices = await choicesOf(db, each.id);
    for (const rhythm of ['at-once', 'daily'] as const) {
      const kinds = kindsIn(choices, rhythm);
      const told = kinds.length === 0 ? null : await toldOfStaff(db, each.id);
      if (told === null || !isDue(deps, rhythm, told, round)) continue;
      if (await tellOne(deps, each, rhythm, kinds, told, round)) sent++;
    }
  }
  return sent;
}
