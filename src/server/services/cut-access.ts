import 'server-only';
import type { CutPreview, CutResult } from '@/contracts/access';
import { groupBy } from '@/core/base/group';
import { reaches } from '@/core/policy/powers';
import type { Scope } from '@/core/policy/scope';
import { setGrantsRevoked } from '@/server/repositories/dispatch-repository';
import { grantsInScope, type ScopedGrant } from '@/server/repositories/people-repository';
import { aboutGrant } from '@/server/services/change-access';
import type { Deps, StaffActor } from '@/server/services/deps';
import { record } from '@/server/services/record';

function within(actor: StaffActor, found: readonly ScopedGrant[]): ScopedGrant[] {
  return found.filter((grant) => reaches(actor, grant));
}

/** Whom revoking this whole scope would hit, and what it could not bring back. */
export async function previewCut(deps: Deps, actor: StaffActor, { scope }: { readonly scope: Scope }): Promise<CutPreview> {
  const found = await grantsInScope(deps.db.read, scope);
  const hit = within(actor, found);
  return {
    grants: hit.length,
    people: [...groupBy(hit, (grant) => grant.recipientId).values()].map(([first]) => (first === undefined || first.name === '' ? (first?.address ?? '') : first.name)),
    documents: new Set(hit.map((grant) => grant.documentId)).size,
    printsMade: hit.reduce((sum, grant) => sum + grant.printsMade, 0),
    mayHaveKept: new Set(hit.filter((grant) => grant.mayKeep === 1 && grant.opens > 0).map((grant) => grant.recipientId)).size,
    beyondPower: found.length - hit.length,
  };
}

/**
 * Revokes every grant of a scope that this member of staff may change, in one transaction.
 *
 * @returns the grants that were revoked now, so that exactly these can be reinstated
 */
export async function cutAccess(deps: Deps, actor: StaffActor, { scope }: { readonly scope: Scope }): Promise<CutResult> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const ids = within(actor, await grantsInScope(tx, scope)).map((grant) => grant.id);
    const revoked = ids.length === 0 ? [] : await setGrantsRevoked(tx, ids, actor.id, now);
    if (revoked.length > 0) await record(deps, tx, ...revoked.map((grant) => aboutGrant('grant.revoked', actor, now, grant, { scope: scope.kind })));
    return { grants: revoked.map((grant) => grant.id) };
  });
}
