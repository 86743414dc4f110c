import 'server-only';
import type { StaffId } from '@/core/base/ids';
import { NOTICE_KINDS, type NoticeChoices, type NoticeKind } from '@/core/insight/notices';
import { noticeChoices } from '@/contracts/notices';
import type { Reading, Transaction } from '@/server/db/database';
import { lastSequence } from '@/server/repositories/ledger/access-changes';
import { findSetting, putSetting } from '@/server/repositories/staff/settings-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { record } from '@/server/services/base/record';

/**
 * Up to where somebody was told: of each kind up to which entry, of ends up to which moment; when
 * last at once, and on which day last.
 */
export type Told = {
  readonly seen: Readonly<Record<NoticeKind, number>>;
  readonly endsUpTo: number;
  readonly at: number;
  readonly day: string;
};

const choicesName = (staff: StaffId): string => `notices ${staff}`;
const toldName = (staff: StaffId): string => `noticed ${staff}`;

/** Of what somebody wants to be told; nobody is told of anything before they chose it. */
export async function choicesOf(db: Reading | Transaction, staff: StaffId): Promise<NoticeChoices> {
  return noticeChoices.parse((await findSetting(db, choicesName(staff))) ?? {});
}

export async function toldOfStaff(db: Reading | Transaction, staff: StaffId): Promise<Told | null> {
  return (await findSetting(db, toldName(staff))) as Told | null;
}

export function putTold(tx: Transaction, staff: StaffId, told: Told): Promise<void> {
  return putSetting(tx, toldName(staff), told);
}

/** Where somebody begins who is told of nothing yet. */
function fromNowOn(last: number, now: number, day: string): Told {
  const seen = Object.fromEntries(NOTICE_KINDS.map((kind) => [kind, last]));
  return { seen: seen as Told['seen'], endsUpTo: now, at: now, day };
}

/**
 * Chooses of what one is told, and when; what is not named stays. Of each kind, what happened
 * before it was chosen is not told.
 */
export async function chooseNotices(
  deps: Deps,
  actor: StaffActor,
  change: Partial<NoticeChoices>,
): Promise<NoticeChoices> {
  return deps.db.write(async (tx) => {
    const [before, now] = [await choicesOf(tx, actor.id), deps.clock.now()];
    const after = { ...before, ...change };
    const start = fromNowOn(await lastSequence(tx), now, deps.calendar.dayOf(now));
    const told = (await toldOfStaff(tx, actor.id)) ?? start;
    const isBegun = (kind: NoticeKind): boolean =>
      before[kind] === 'never' && after[kind] !== 'never';
    const seen = Object.fromEntries(
      NOTICE_KINDS.map((kind) => [kind, (isBegun(kind) ? start : told).seen[kind]]),
    ) as Told['seen'];
    await putTold(tx, actor.id, {
      ...told,
      seen,
      endsUpTo: isBegun('ending') ? now : told.endsUpTo,
    });
    await putSetting(tx, choicesName(actor.id), after);
    await record(deps, tx, {
      action: 'staff.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      details: { staff: actor.id, notices: true, before, after },
    });
    return after;
  });
}
