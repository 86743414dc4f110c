import 'server-only';
import type { StaffId } from '@/core/base/ids';
import { kindsIn, RHYTHMS, type NoticeChoices } from '@/core/insight/notices';
import { noticeChoices } from '@/contracts/notices';
import type { Reading, Transaction } from '@/server/db/database';
import { lastSequence } from '@/server/repositories/ledger-reader';
import { findSetting, putSetting } from '@/server/repositories/settings-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { record } from '@/server/services/record';

/** Up to where somebody was told in one rhythm: entries, ends (a moment), when, and on which day. */
export type Told = {
  readonly seen: number;
  readonly endsUpTo: number;
  readonly at: number;
  readonly day: string;
};

const choicesName = (staff: StaffId): string => `notices ${staff}`;
const toldName = (staff: StaffId, rhythm: 'at-once' | 'daily'): string =>
  `noticed ${rhythm} ${staff}`;

/** Of what somebody wants to be told; nobody is told of anything before they chose it. */
export async function choicesOf(db: Reading | Transaction, staff: StaffId): Promise<NoticeChoices> {
  return noticeChoices.parse((await findSetting(db, choicesName(staff))) ?? {});
}

export async function toldOfStaff(
  db: Reading | Transaction,
  staff: StaffId,
  rhythm: 'at-once' | 'daily',
): Promise<Told | null> {
  return (await findSetting(db, toldName(staff, rhythm))) as Told | null;
}

export function putTold(
  tx: Transaction,
  staff: StaffId,
  rhythm: 'at-once' | 'daily',
  told: Told,
): Promise<void> {
  return putSetting(tx, toldName(staff, rhythm), told);
}

/** Chooses of what one is told, and when. What happened before is not told of. */
export async function chooseNotices(
  deps: Deps,
  actor: StaffActor,
  after: NoticeChoices,
): Promise<NoticeChoices> {
  await deps.db.write(async (tx) => {
    const [before, now] = [await choicesOf(tx, actor.id), deps.clock.now()];
    const last = await lastSequence(tx);
    for (const rhythm of RHYTHMS) {
      if (
        rhythm === 'never' ||
        kindsIn(before, rhythm).length > 0 ||
        kindsIn(after, rhythm).length === 0
      )
        continue;
      await putTold(tx, actor.id, rhythm, {
        seen: last,
        endsUpTo: now,
        at: now,
        day: deps.calendar.dayOf(now),
      });
    }
    await putSetting(tx, choicesName(actor.id), after);
    await record(deps, tx, {
      action: 'staff.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      details: { staff: actor.id, notices: true, before, after },
    });
  });
  return after;
}
