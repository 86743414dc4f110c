import 'server-only';
import type { DispatchId } from '@/core/base/ids';
import type { HandedOver } from '@/contracts/dispatch';
import type { Reading } from '@/server/db/database';
import {
  lastMails,
  stopWaiting,
  type MailState,
} from '@/server/repositories/mailing/mail-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { record } from '@/server/services/base/record';
import { needDispatch } from '@/server/services/dispatching/check-dispatch';

const MAIL_STATES: Readonly<Record<MailState, HandedOver['state']>> = {
  waiting: 'waiting',
  sending: 'waiting',
  delivered: 'delivered',
  returned: 'returned',
  failed: 'failed',
  unsure: 'failed',
  stopped: 'stopped',
};

function toHandedOver({
  recipientId,
  state,
  problem,
  createdAt,
  deliveredAt,
  returnedAt,
}: Awaited<ReturnType<typeof lastMails>>[number]): HandedOver[] {
  if (recipientId === null) return [];
  const at = returnedAt ?? deliveredAt ?? createdAt;
  return [{ recipientId, state: MAIL_STATES[state], at, problem: problem ?? '' }];
}

/** The last message of a dispatch to each of its recipients, and where it is. */
export async function handedOver(db: Reading, id: DispatchId): Promise<readonly HandedOver[]> {
  return (await lastMails(db, id)).flatMap(toHandedOver);
}

/** The same for a page that follows it while it goes on. */
export async function viewMailProgress(
  deps: Pick<Deps, 'db'>,
  _actor: StaffActor,
  { id }: { readonly id: DispatchId },
): Promise<{ readonly mail: readonly HandedOver[] }> {
  return { mail: await handedOver(deps.db.read, id) };
}

/**
 * Keeps the messages of a dispatch that wait from going out. What was handed over is on its way, and
 * everybody's access stays as it was given; who is mailed again gets their message.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`
 */
export async function stopMail(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: DispatchId },
): Promise<{ readonly stopped: number }> {
  return deps.db.write(async (tx) => {
    await needDispatch(tx, actor, id);
    const stopped = await stopWaiting(tx, id);
    if (stopped > 0)
      await record(deps, tx, {
        action: 'mail.stopped',
        outcome: 'done',
        actor: { kind: 'staff', id: actor.id },
        occurredAt: deps.clock.now(),
        dispatch: id,
        details: { messages: stopped },
      });
    return { stopped };
  });
}
