import 'server-only';
import type { GrantRow } from '@/contracts/dispatch';
import { reaches } from '@/core/policy/powers';
import { underCeilings, type Ceiling } from '@/core/policy/ceiling';
import { grantsOf, opensByGrant, termsOf, type GrantRecord, type GrantsOf, refusalsOf } from '@/server/repositories/dispatch-repository';
import { recipientsByIds } from '@/server/repositories/people-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { ceilingFinder } from '@/server/services/document-policy';

/** What a grant comes to where ceilings allow less than it gives. */
function cappedBy(ceilings: readonly Ceiling[], grant: GrantRecord): GrantRow['capped'] {
  if (ceilings.length === 0) return null;
  const { terms: { rights, until, prints }, taken } = underCeilings(termsOf(grant), grant.givenAt, ceilings);
  return taken.size === 0 && until === grant.untilAt && prints === grant.prints ? null : { rights, until, prints };
}

/** The grants of a dispatch, of a document or of a person, as lists show them. */
export async function grantRows(deps: Deps, actor: Pick<StaffActor, 'id' | 'role'>, of: GrantsOf): Promise<readonly GrantRow[]> {
  const rows = await grantsOf(deps.db.read, of);
  const [ceilingsOf, opens, refusals] = await Promise.all([
    ceilingFinder(deps.db.read),
    opensByGrant(deps.db.read, rows.map((row) => row.grant.id)),
    refusalsOf(deps.db.read, [...new Set(rows.map((row) => row.document.id))]),
  ]);
  const givers = new Map((await recipientsByIds(deps.db.read, [...new Set(rows.flatMap(({ grant }) => grant.passedOnBy ?? []))])).map(({ id, name, address }) => [id, name === '' ? address : name]));
  return rows.map(({ grant, recipient, document, dispatch, token, hasKey }) => ({
    id: grant.id, dispatchId: dispatch.id, dispatchReference: dispatch.reference, dispatchSubject: dispatch.subject, sentAt: dispatch.sentAt, documentId: document.id, documentTitle: document.title, documentReference: document.reference, documentRevoked: document.revokedAt !== null, keyDestroyed: hasKey === 0, blocked: recipient.blocked,
    recipientId: recipient.id, kind: recipient.kind, parent: grant.parentId, passedOnBy: grant.passedOnBy === null ? null : (givers.get(grant.passedOnBy) ?? ''), name: recipient.name, address: recipient.address, organisation: recipient.organisation, zone: recipient.zone,
    rights: grant.rights, from: grant.fromAt, until: grant.untilAt, prints: grant.prints, printsMade: grant.printsMade, conditions: grant.conditions, capped: cappedBy(ceilingsOf(document), grant),
    revokedAt: grant.revokedAt, revision: grant.revision, givenAt: grant.givenAt,
    opens: opens.get(grant.id)?.opens ?? 0, lastOpen: opens.get(grant.id)?.last ?? null, refusals: refusals.get(`${recipient.id} ${document.id}`) ?? 0,
    mayChange: reaches(actor, { sender: dispatch.sentBy, owner: document.ownerId, deputy: document.deputyId }),
    // An open link lets in whoever has it: only who made it sees it, and nobody else on the staff reads by it.
    link: recipient.kind === 'link' && dispatch.sentBy !== actor.id ? '' : `${deps.publicUrl}/r/${token}`,
  }));
}
