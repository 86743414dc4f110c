import 'server-only';
import type { CloseMailboxInput } from '@/contracts/mailroom';
import { putMailboxClosed } from '@/server/repositories/mailing/closed-mailboxes';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { needDemo } from '@/server/services/demo/need-demo';

/**
 * Closes a mailbox of the demo's mail server, from which everything comes back then, or opens it
 * again.
 *
 * @throws ServiceError `NOT_FOUND` where this is no demo
 */
export async function closeMailbox(
  deps: Deps,
  _actor: StaffActor,
  { address, closed }: CloseMailboxInput,
): Promise<Record<string, never>> {
  await needDemo(deps);
  await deps.db.write((tx) => putMailboxClosed(tx, address, closed));
  return {};
}
