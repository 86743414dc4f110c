import 'server-only';
import { carriesFile } from '@/core/policy/delivery';
import type { LicenceId } from '@/core/base/ids';
import { grantsByIds } from '@/server/repositories/access/grant-reader';
import { findFileFacts } from '@/server/repositories/documents/file-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { recordAlone, whereabouts } from '@/server/services/base/record';
import { protectedFileFor, type ProtectedFile } from '@/server/services/documents/protected-files';
import {
  aboutOpen,
  decideAgain,
  needLicence,
  recordWithheld,
  type Refused,
} from '@/server/services/reading/open-licence';

type Taken = ProtectedFile & { readonly outcome: 'taken' };

/**
 * The protected file that went out with this open's dispatch, once more: for whoever reads by the
 * link and has not kept the message, where it opens on their own machine. It opens nothing by itself.
 *
 * @throws ServiceError `not-on-own-machine`, `TOO_MANY`
 */
export async function takeFile(
  deps: Deps,
  actor: ReaderActor,
  { licence: id }: { readonly licence: LicenceId },
): Promise<Taken | Refused> {
  const opened = await needLicence(deps, actor, id);
  const wait = await deps.limits.opens(actor.address);
  if (wait > 0) throw tooMany(wait);
  const decision = await decideAgain(deps, deps.db.read, actor, opened, 'read');
  if (decision.outcome === 'refused') return recordWithheld(deps, actor, opened, 'read', decision);
  const { dispatch, licence, version } = opened;
  const [grant] = await grantsByIds(deps.db.read, [licence.grantId]);
  const mayHave =
    decision.obligations.offline !== null && carriesFile(dispatch.form) && !version.isLocal;
  const facts =
    grant === undefined || !mayHave
      ? null
      : await findFileFacts(deps.db.read, {
          dispatch: dispatch.id,
          recipient: grant.recipientId,
          version: version.id,
        });
  if (facts?.linkOffAt !== null) throw new ServiceError('not-on-own-machine');
  const file = await protectedFileFor(deps, facts);
  await recordAlone(deps, {
    action: 'file.taken',
    outcome: 'done',
    ...aboutOpen(opened, actor, deps),
    details: { bytes: file.bytes },
    personal: { address: actor.address, ...whereabouts(deps, actor.from) },
  });
  return { ...file, outcome: 'taken' };
}
