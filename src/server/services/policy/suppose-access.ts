import 'server-only';
import type { DocumentId, GrantId, RecipientId } from '@/core/base/ids';
import { HOUR } from '@/core/base/time';
import type { GrantFacts } from '@/core/policy/compile';
import { UNUSED } from '@/core/policy/conditions';
import type { Explained, SupposeInput } from '@/contracts/explain';
import { lastDone } from '@/server/repositories/ledger/last-done';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { NOBODY_YET, policyFor } from '@/server/services/policy/document-policy';
import { answer, circumstances, recordLook } from '@/server/services/policy/explain-access';

/** How often it is written down that somebody looked at the same two while composing. */
const LOOK_LASTS = 12 * HOUR;

/** The grant that is being composed. */
const NOT_GIVEN_YET: GrantId = 'grt_not-given-yet';

/**
 * Whether somebody could open a document, were they given it on these terms: everything else they
 * hold, and every ceiling, is as it is. That somebody looked at a known person is recorded once.
 *
 * @throws ServiceError `NOT_FOUND`
 */
export async function supposeAccess(
  deps: Deps,
  actor: StaffActor,
  input: SupposeInput,
): Promise<Explained> {
  const [found, known, organisation] = await Promise.all([
    findDocument(deps.db.read, input.document),
    findRecipientByAddress(deps.db.read, input.address),
    findOrganisation(deps.db.read),
  ]);
  if (found === null) throw new ServiceError('no-document');
  const now = deps.clock.now();
  if (known !== null) await noteLook(deps, actor, known.id, found.document.id, now);
  const { id, name, zone, blocked } = known ?? {
    id: NOBODY_YET,
    name: input.name,
    zone: null,
    blocked: false,
  };
  const recipient = { id, name, address: input.address };
  const supposed: GrantFacts = {
    id: NOT_GIVEN_YET,
    addressee: { kind: 'person', id },
    terms: input.terms,
    revoked: false,
    used: UNUSED,
    givenBy: actor.id,
    givenAt: now,
  };
  const theirZone = zone ?? organisation?.zone ?? 'UTC';
  return answer(deps, {
    document: found.document,
    recipient,
    policy: await policyFor(deps, deps.db.read, found, recipient, null, supposed),
    blocked,
    at: circumstances(
      // Nothing that is composed was given before now.
      { ...input, at: Math.max(input.at ?? now, now) },
      now,
      theirZone,
      (network) => deps.places.find(network)?.country ?? null,
    ),
    zone: theirZone,
    past: false,
  });
}

async function noteLook(
  deps: Deps,
  actor: StaffActor,
  recipient: RecipientId,
  document: DocumentId,
  now: number,
): Promise<void> {
  const last = await lastDone(deps.db.read, 'staff.viewed', { document, recipient });
  if (last?.by === actor.id && last.at >= now - LOOK_LASTS) return;
  await recordLook(deps, actor, recipient, document);
}
