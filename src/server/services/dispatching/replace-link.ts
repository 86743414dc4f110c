import 'server-only';
import type { ReplaceLinkInput } from '@/contracts/dispatch';
import { findLinkOf, putLinkToken } from '@/server/repositories/dispatching/dispatch-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { newLink } from '@/server/services/access/give-grants';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';
import { needOurs } from '@/server/services/base/trusted-rows';
import { needDispatch } from '@/server/services/dispatching/check-dispatch';

/**
 * Gives somebody, or what stands for many, another link into a dispatch: the one they had leads
 * nowhere from now on. What they may open stays as it is, and nothing is mailed.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` where the dispatch is somebody else's
 */
export async function replaceLink(
  deps: Deps,
  actor: StaffActor,
  { id, recipient }: ReplaceLinkInput,
): Promise<{ readonly link: string }> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    await needDispatch(tx, actor, id);
    const { token } = newLink(deps, id, recipient, now);
    const found = await findLinkOf(tx, id, recipient);
    if (found === null) throw new ServiceError('link-unknown');
    // A row that another program wrote would pass for this product's own once it is changed.
    await needOurs(deps, tx, { links: [found] });
    await putLinkToken(tx, found, token);
    await record(deps, tx, {
      action: 'link.replaced',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      dispatch: id,
      recipient,
    });
    return { link: `${deps.publicUrl}/r/${token}` };
  });
}
