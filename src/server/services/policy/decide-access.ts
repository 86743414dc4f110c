import 'server-only';
import type { DocumentId, GrantId, LicenceId } from '@/core/base/ids';
import type { CompiledDocument } from '@/core/policy/compile';
import { decide, type Decision, type RefusalReason } from '@/core/policy/decide';
import { withNextOpening } from '@/core/policy/next-opening';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import type { Reading, Transaction } from '@/server/db/database';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import {
  askerOf,
  circumstancesIn,
  policyFor,
  standsAsWritten,
  zoneOf,
} from '@/server/services/policy/document-policy';

/**
 * An open that goes on: its licence is not counted against itself, and it stays charged to its
 * grant while that is live.
 */
export type During = { readonly licence: LicenceId; readonly grant: GrantId };

function refused(reason: RefusalReason): Decision {
  return { outcome: 'refused', reason, source: null, at: null };
}

/** All that decides about a document for one person, but when, from where and on what they ask. */
export type Grounds =
  | { readonly refused: RefusalReason }
  | {
      readonly policy: CompiledDocument;
      readonly recipient: Awaited<ReturnType<typeof findRecipientByAddress>>;
      /** The person's own, or the organisation's. */
      readonly zone: string;
    };

/** What decides for a person and a document, as the tables are now. */
export async function groundsFor(
  deps: Pick<Deps, 'integrity'>,
  db: Reading | Transaction,
  actor: Pick<ReaderActor, 'address'>,
  documentId: DocumentId,
  during: During | null = null,
): Promise<Grounds> {
  const found = await findDocument(db, documentId);
  const recipient = await findRecipientByAddress(db, actor.address);
  if (found === null) return { refused: 'not-addressed' };
  const { id = null, zone = null } = recipient ?? {};
  if (!(await standsAsWritten(deps, db, found, id))) return { refused: 'condition-unknown' };
  const policy = await policyFor(
    deps,
    db,
    found,
    { id, address: actor.address },
    during?.licence ?? null,
  );
  return { policy, recipient, zone: await zoneOf(db, zone) };
}

/** Decides on these grounds for somebody who asks now. */
export function decideOn(
  deps: Pick<Deps, 'clock' | 'places'>,
  grounds: Grounds,
  actor: ReaderActor,
  during: During | null = null,
): Decision {
  if ('refused' in grounds) return refused(grounds.refused);
  const { policy, recipient, zone } = grounds;
  const at = circumstancesIn(deps, actor, zone);
  const decision = decide(policy, {
    identity: 'proven',
    recipient: askerOf(actor, recipient),
    ...(during === null ? {} : { during: during.grant }),
    at,
  });
  return withNextOpening(decision, policy, at);
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
  return decideOn(deps, await groundsFor(deps, db, actor, documentId, during), actor, during);
}
