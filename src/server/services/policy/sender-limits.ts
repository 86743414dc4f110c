import 'server-only';
import type { StaffId } from '@/core/base/ids';
import {
  NO_SENDER_LIMITS,
  beyondLimits,
  beyondLines,
  limitsSender,
  type Giving,
  type SenderLimits,
} from '@/core/policy/sender-limits';
import type { OwnLimits, SenderLimitsChanged, SenderLimitsInput } from '@/contracts/staff';
import type { Reading, Transaction } from '@/server/db/database';
import { folderParents } from '@/server/repositories/policy/ceiling-repository';
import {
  findSenderLimits,
  putSenderLimits,
  removeSenderLimits,
} from '@/server/repositories/policy/sender-limits-repository';
import { findStaff, namesOfStaff } from '@/server/repositories/staff/staff-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';

/** The limits that bind somebody: an administrator is bound by none. */
async function limitsOf(db: Reading | Transaction, actor: Pick<StaffActor, 'id' | 'role'>) {
  return actor.role === 'administrator' ? null : findSenderLimits(db, actor.id);
}

/** One's own limits with who set them; null: none. */
export async function viewOwnLimits(
  deps: Pick<Deps, 'db'>,
  actor: StaffActor,
): Promise<OwnLimits | null> {
  const row = await limitsOf(deps.db.read, actor);
  return row === null
    ? null
    : {
        limits: row.limits,
        setBy: (await namesOfStaff(deps.db.read)).get(row.setBy) ?? '',
        setAt: row.setAt,
      };
}

/**
 * @throws ServiceError `NOT_ALLOWED` where this goes beyond what the member of staff may give,
 * saying what, who set it and whom to ask
 */
export async function needWithinLimits(
  tx: Transaction,
  actor: StaffActor,
  giving: Giving,
): Promise<void> {
  const row = await limitsOf(tx, actor);
  if (row === null) return;
  const beyond = beyondLimits(row.limits, giving, await folderParents(tx));
  if (beyondLines(beyond).length === 0) return;
  throw new ServiceError('beyond-own-limits', {
    beyond,
    setBy: (await namesOfStaff(tx)).get(row.setBy) ?? null,
  });
}

/**
 * Limits what a member of staff may give, from now on. What they gave before stays.
 *
 * @returns what it was, so that it can be undone by the same means
 * @throws ServiceError `NOT_FOUND`, `INVALID` for an administrator, `CONFLICT` where somebody set it since it was seen
 */
export async function changeSenderLimits(
  deps: Deps,
  actor: StaffActor,
  { id, limits, seen }: SenderLimitsInput,
): Promise<SenderLimitsChanged> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const member = await findStaff(tx, id satisfies StaffId);
    if (member === null) throw new ServiceError('no-colleague');
    if (member.role !== 'sender' && limitsSender(limits))
      throw new ServiceError('only-senders-limited');
    const known = (await findSenderLimits(tx, id)) ?? { limits: NO_SENDER_LIMITS, setAt: null };
    if (known.setAt !== seen) throw new ServiceError('limits-changed');
    // Set twice within a millisecond, they would be taken for the ones that were seen.
    const setAt = Math.max(now, (known.setAt ?? 0) + 1);
    const limiting = limitsSender(limits);
    if (limiting) await putSenderLimits(tx, { staffId: id, limits, setBy: actor.id, setAt });
    else await removeSenderLimits(tx, id);
    const before: SenderLimits = known.limits;
    await record(deps, tx, {
      action: 'staff.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      details: { staff: id, limits: limiting ? { ...limits } : null, before: { ...before } },
    });
    return { before, setAt: limiting ? setAt : null };
  });
}
