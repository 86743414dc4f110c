import 'server-only';
import type { DispatchId, LinkId, RecipientId } from '@/core/base/ids';
import type { LinkInput } from '@/contracts/dispatch';
import type { Transaction } from '@/server/db/database';
import {
  findLinkOf,
  linksOf,
  putLinkOff,
  putLinkToken,
} from '@/server/repositories/dispatching/dispatch-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { newLink } from '@/server/services/access/give-grants';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';
import { needOurs } from '@/server/services/base/trusted-rows';
import { needDispatch } from '@/server/services/dispatching/check-dispatch';

async function needLink(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  { id, recipient }: LinkInput,
): Promise<LinkId> {
  await needDispatch(tx, actor, id);
  const found = await findLinkOf(tx, id, recipient ?? null);
  if (found === null) throw new ServiceError('link-unknown');
  // A row that another program wrote would pass for this product's own once it is changed.
  await needOurs(deps, tx, { links: [found] });
  return found;
}

function about(
  action: 'link.replaced' | 'link.switched-off',
  actor: StaffActor,
  { id, recipient }: LinkInput,
  now: number,
) {
  return {
    action,
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: now,
    dispatch: id,
    ...(recipient === undefined ? {} : { recipient }),
  } as const;
}

/**
 * Gives somebody, what stands for many, or the files made for everybody another link into a
 * dispatch: the one there was leads nowhere from now on. What anyone may open stays as it is, and
 * nothing is mailed.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` where the dispatch is somebody else's
 */
export async function replaceLink(
  deps: Deps,
  actor: StaffActor,
  input: LinkInput,
): Promise<{ readonly link: string }> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const link = await needLink(deps, tx, actor, input);
    const { token } = newLink(deps, input.id, input.recipient ?? null, now);
    await putLinkToken(tx, link, token);
    await record(deps, tx, about('link.replaced', actor, input, now));
    return { link: `${deps.publicUrl}/r/${token}` };
  });
}

/**
 * Switches somebody's link into a dispatch off: it leads nowhere until it is replaced. What they may
 * open stays as it is, by whatever other link they have.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`, `CONFLICT` where it was off before
 */
export async function switchOffLink(
  deps: Deps,
  actor: StaffActor,
  input: LinkInput,
): Promise<Record<string, never>> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const link = await needLink(deps, tx, actor, input);
    if (!(await putLinkOff(tx, link, now))) throw new ServiceError('link-off-already');
    await record(deps, tx, about('link.switched-off', actor, input, now));
    return {};
  });
}

/** The links to be mailed to these people: who has one that is switched off gets another. */
export async function linksToMail(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  dispatch: DispatchId,
  people: readonly { readonly id: RecipientId }[],
): Promise<ReadonlyMap<RecipientId, string>> {
  const links = await linksOf(tx, dispatch);
  for (const { id } of people) {
    const off = links.has(id) ? null : await findLinkOf(tx, dispatch, id);
    if (off === null) continue;
    const now = deps.clock.now();
    await needOurs(deps, tx, { links: [off] });
    const { token } = newLink(deps, dispatch, id, now);
    await putLinkToken(tx, off, token);
    await record(deps, tx, about('link.replaced', actor, { id: dispatch, recipient: id }, now));
    links.set(id, token);
  }
  return links;
}
