import 'server-only';
import type { LicenceId } from '@/core/base/ids';
import type { OpenState } from '@/contracts/reader';
import { grantsByIds } from '@/server/repositories/access/grant-reader';
import { passedOnFrom } from '@/server/repositories/access/wider-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { openState } from '@/server/services/reading/open-state';
import { type Refused, needLicence, decideAgain } from '@/server/services/reading/open-licence';

/** What an open reader asks after a change: may it go on, and with what? Asking is not an open and is not recorded. */
export async function checkOpen(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly licence: LicenceId },
): Promise<(OpenState & { readonly outcome: 'granted' }) | Refused> {
  const opened = await needLicence(deps, actor, input.licence);
  const decision = await decideAgain(deps, deps.db.read, actor, opened, 'read');
  if (decision.outcome === 'refused') return decision;
  return {
    outcome: 'granted',
    ...(await openState(
      deps,
      { address: actor.address, recipient: opened.licence.recipientId },
      opened.document,
      decision,
    )),
  };
}

/** Watches for changes that bear on an open. @returns a function that ends the watch */
export async function watchOpen(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly licence: LicenceId },
  onChange: () => void,
): Promise<() => void> {
  const { licence } = await needLicence(deps, actor, input.licence);
  // What others print of the same grant above counts here as well.
  const above = await passedOnFrom(
    deps.db.read,
    await grantsByIds(deps.db.read, [licence.grantId]),
  );
  return deps.live.watch(
    [licence.grantId, licence.documentId, licence.recipientId, ...above.map(({ id }) => id)],
    licence.recipientId,
    onChange,
  );
}
