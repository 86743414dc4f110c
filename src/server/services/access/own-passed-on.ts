import 'server-only';
import type { DocumentId } from '@/core/base/ids';
import type { PassedOn } from '@/contracts/reader';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import { passedOnBy } from '@/server/repositories/access/wider-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';

/** To whom somebody passed a document on, and whether it stands. */
export async function ownPassedOn(
  deps: Pick<Deps, 'db'>,
  actor: Pick<ReaderActor, 'address'>,
  document: DocumentId,
): Promise<readonly PassedOn[]> {
  const giver = await findRecipientByAddress(deps.db.read, actor.address);
  return giver === null
    ? []
    : (await passedOnBy(deps.db.read, giver.id, document)).map(
        ({ address, rights, until, revokedAt }) => ({
          address,
          rights,
          until,
          revoked: revokedAt !== null,
        }),
      );
}
