import 'server-only';
import { newId, type ConsentId, type DraftId, type HeldId } from '@/core/base/ids';
import { holds, reaches } from '@/core/policy/permissions';
import type { DraftBody } from '@/core/compose/draft';
import { dispatchInput, type DispatchInput, type SendResult } from '@/contracts/dispatch';
import type { ProblemCode } from '@/contracts/problems';
import type { Transaction } from '@/server/db/database';
import {
  dueHeld,
  findHeld,
  insertHeld,
  listHeld,
  removeHeld,
  settleHeld,
  type HeldRecord,
} from '@/server/repositories/dispatching/held-repository';
import { findStaff } from '@/server/repositories/staff/staff-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';
import { needOurs } from '@/server/services/base/trusted-rows';
import { restoreDraft } from '@/server/services/dispatching/restore-draft';
import { checkDispatch } from '@/server/services/dispatching/check-dispatch';
import { dispatchIn } from '@/server/services/dispatching/dispatch-documents';
import { needsSecond } from '@/server/services/policy/within-rules';

/** Why one could not leave: the problem, for a sentence at the edge. */
type HeldProblem = { readonly problem: ProblemCode; readonly fields: object };

/** What is held back, as a page is told. */
export type HeldFound = Omit<HeldRecord, 'body' | 'draft' | 'problem' | 'state' | 'consentId'> & {
  readonly by: string;
  readonly own: boolean;
  readonly input: Pick<
    DispatchInput,
    'subject' | 'documents' | 'recipients' | 'groups' | 'domains'
  >;
  readonly problem: HeldProblem | null;
  /** Whether a second person agreed that it leaves at that time. */
  readonly approved: boolean;
};

type Holding = {
  readonly now: number;
  readonly leavesAt: number;
  /** What it was composed in, for whoever stops it; `null`: it was not composed on a page. */
  readonly draft: DraftBody | null;
  /** The agreement of a second person by which it may leave. */
  readonly consent?: ConsentId | null;
};

/**
 * Writes a dispatch down, to leave later by itself. Documents, shares, ends and size are judged now,
 * and all of it again when it leaves: also what its sender may give by then.
 *
 * @throws ServiceError as for `checkDispatch`
 */
export async function holdIn(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  input: DispatchInput,
  { now, leavesAt, draft, consent = null }: Holding,
): Promise<SendResult> {
  await checkDispatch(deps, tx, actor, input, leavesAt);
  const held = newId('held', deps.random);
  await insertHeld(tx, {
    id: held,
    staffId: actor.id,
    body: input,
    draft,
    consentId: consent,
    leavesAt,
    createdAt: now,
  });
  await record(deps, tx, {
    action: 'dispatch.held',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: now,
    details: {
      held,
      leavesAt,
      documents: input.documents.length,
      recipients: input.recipients.length,
    },
    personal: { text: input.subject },
  });
  return { id: null, reference: '', held, waits: false };
}

/** What is held back and what could not leave: one's own, and everybody's for administrators. */
export async function viewHeld(
  deps: Pick<Deps, 'db'>,
  actor: StaffActor,
): Promise<readonly HeldFound[]> {
  if (!holds(actor.role, 'dispatch')) return [];
  const rows = await listHeld(deps.db.read);
  return rows.flatMap(({ held, by }) => {
    const input = dispatchInput.safeParse(held.body).data;
    if (input === undefined || !reaches(actor, { sender: held.staffId })) return [];
    const { id, staffId, leavesAt, createdAt } = held;
    return [
      {
        id,
        staffId,
        leavesAt,
        createdAt,
        by,
        own: staffId === actor.id,
        approved: held.consentId !== null,
        input,
        problem: held.problem === null ? null : (JSON.parse(held.problem) as HeldProblem),
      },
    ];
  });
}

/**
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` where it is somebody else's, `CONFLICT` where
 * another program wrote it: what is changed by this one would pass for its own
 */
async function needHeld(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  id: HeldId,
): Promise<HeldRecord> {
  const held = await findHeld(tx, id);
  if (held === null) throw new ServiceError('no-dispatch');
  if (!reaches(actor, { sender: held.staffId })) throw new ServiceError('dispatch-of-others');
  await needOurs(deps, tx, { held_dispatches: [id] });
  return held;
}

/**
 * Stops a dispatch before it leaves. What it was composed in is a draft again.
 *
 * @returns the draft; `null`: it was not composed on a page, or it is somebody else's
 * @throws ServiceError `CONFLICT` where it has left
 */
export async function stopHeld(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: HeldId },
): Promise<{ readonly draft: DraftId | null }> {
  return deps.db.write(async (tx) => {
    const now = deps.clock.now();
    const held = await needHeld(deps, tx, actor, id);
    if (!(await settleHeld(tx, id, ['held', 'failed'], { state: 'stopped' })))
      throw new ServiceError('held-left');
    await record(deps, tx, {
      action: 'dispatch.stopped',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      details: { held: id },
    });
    if (held.draft === null) return { draft: null };
    const draft = await restoreDraft(deps, tx, held.staffId, held.draft);
    return { draft: held.staffId === actor.id ? draft : null };
  });
}

/**
 * Lets a dispatch that is held back leave at once.
 *
 * @throws ServiceError `CONFLICT` where it has left, was stopped, or was agreed to for its own time
 */
export async function hastenHeld(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: HeldId },
): Promise<Record<string, never>> {
  await deps.db.write(async (tx) => {
    const held = await needHeld(deps, tx, actor, id);
    const leavesAt = deps.clock.now();
    // The time is a part of what was agreed to.
    if (held.consentId !== null && held.leavesAt > leavesAt)
      throw new ServiceError('approved-for-then');
    if (!(await settleHeld(tx, id, ['held', 'failed'], { state: 'held', leavesAt, problem: null })))
      throw new ServiceError('held-left');
    await record(deps, tx, {
      action: 'dispatch.hastened',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: leavesAt,
      details: { held: id },
    });
  });
  await sendHeld(deps);
  return {};
}

/**
 * Sends what is due: each in one transaction with the note that it left, so that it leaves once
 * however often the server is stopped. What cannot leave is kept, with why.
 *
 * @returns how many left
 * @throws the first error that is no problem of a dispatch: those stay due, and are tried again
 */
export async function sendHeld(deps: Deps): Promise<number> {
  const failed: unknown[] = [];
  let left = 0;
  for (const id of await dueHeld(deps.db.read, deps.clock.now())) {
    try {
      await deps.db.write((tx) => leave(deps, tx, id));
      left++;
    } catch (error) {
      const why = problemOf(error);
      if (why === null) failed.push(error);
      else await deps.db.write((tx) => giveUp(deps, tx, id, why));
    }
  }
  if (failed.length > 0) throw failed[0];
  return left;
}

async function leave(deps: Deps, tx: Transaction, id: HeldId): Promise<void> {
  const now = deps.clock.now();
  const held = await findHeld(tx, id);
  if (held?.state !== 'held' || held.leavesAt > now) return;
  // What another program wrote here would be sent in somebody's name.
  await needOurs(deps, tx, { held_dispatches: [id] });
  await settleHeld(tx, id, ['held'], { state: 'left' });
  const sender = await senderNow(tx, held);
  const input = dispatchInput.parse(held.body);
  if (held.consentId === null && (await needsSecond(tx, input)))
    throw new ServiceError('second-person-needed');
  await dispatchIn(deps, tx, sender, input, now, held.consentId ?? undefined);
}

/** Who composed it, as they are now. @throws ServiceError `NOT_ALLOWED` where they may not send any more */
async function senderNow(tx: Transaction, { staffId }: HeldRecord): Promise<StaffActor> {
  const row = await findStaff(tx, staffId);
  if (row?.disabledAt !== null || !holds(row.role, 'dispatch'))
    throw new ServiceError('sender-gone');
  return {
    kind: 'staff',
    id: row.id,
    name: row.name,
    email: row.email,
    role: row.role,
    session: '',
    proven: false,
    from: { network: '', agent: '' },
  };
}

/** What is wrong with a dispatch itself; `null` for anything that may pass. */
function problemOf(error: unknown): HeldProblem | null {
  if (!(error instanceof ServiceError)) return null;
  const { problem, fields } = error as ServiceError;
  return { problem, fields };
}

/** Keeps what could not leave, for its sender to look at; what another program wrote is removed. */
async function giveUp(deps: Deps, tx: Transaction, id: HeldId, why: HeldProblem): Promise<void> {
  const { problem } = why;
  if (problem === 'rows-not-ours') await removeHeld(tx, id);
  else await settleHeld(tx, id, ['held'], { state: 'failed', problem: JSON.stringify(why) });
  await record(deps, tx, {
    action: 'dispatch.stopped',
    outcome: 'failed',
    actor: { kind: 'system', id: null },
    occurredAt: deps.clock.now(),
    details: { held: id, problem },
  });
}
