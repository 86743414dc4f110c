import 'server-only';
import type { DocumentId, GrantId, LicenceId } from '@/core/base/ids';
import { decide, type Decision, type RefusalReason } from '@/core/policy/decide';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import type { Reading, Transaction } from '@/server/db/database';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import {
  askerOf,
  circumstancesOf,
  policyFor,
  standsAsWritten,
} from '@/server/services/policy/document-policy';

/**
 * An open that goes on: its licence is not counted against itself, and it stays charged to its
 * grant while that is live.
 */
export type During = { readonly licence: LicenceId; readonly grant: GrantId };

function refused(reason: RefusalReason): Decision {
  return { outcome: 'refused', reason, source: null, at: null };
}

/**
 * Decides for a proven person and a document, from the tables as they are now. What charges
 * something decides inside the transaction that charges it, so that of several at once on the last
 * of a count one alone is granted.
 */
export async function decideFor(
  deps: Pick<Deps, 'clock' | 'places' | 'integrity'>,
  db: Reading | Transaction,
  actor: ReaderActor,
  documentId: DocumentId,
  during: During | null = null,
): Promise<Decision> {
  const found = await findDocument(db, documentId);
  const recipient = await findRecipientByAddress(db, actor.address);
  if (found === null) return refused('not-addressed');
  const { id = null, zone = null } = recipient ?? {};
  if (!(await standsAsWritten(deps, db, found, id))) return refused('condition-unknown');
  const policy = await policyFor(
    deps,
    db,
    found,
    { id, address: actor.address },
    during?.licence ?? null,
  );
  const at = await circumstancesOf(deps, db, actor, zone);
  return decide(policy, {
    identity: 'proven',
    recipient: askerOf(actor, recipient),
    ...(during === null ? {} : { during: during.grant }),
    at,
  });
}
