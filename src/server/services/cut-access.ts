import 'server-only';
import type { CutPreview, CutResult } from '@/contracts/access';
import { reaches } from '@/core/policy/powers';
import type { Scope } from '@/core/policy/scope';
import { setAllRevoked } from '@/server/repositories/dispatch-repository';
import { grantsInScope, whatIsHit, type ScopedGrant } from '@/server/repositories/people-repository';
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
  const { people, printsMade, mayHaveKept } = await whatIsHit(deps.db.read, hit.map((grant) => grant.id));
  return { grants: hit.length, people: people.map(({ name, address }) => (name === '' ? address : name)), documents: new Set(hit.map((grant) => grant.documentId)).size, printsMade, mayHaveKept, beyondPower: found.length - hit.length };
}

/**
 * Revokes every grant of a scope that this member of staff may change, in one transaction.
 *
 * @returns the grants that were revoked now, so that exactly these can be reinstated
 */
export async function cutAccess(deps: Deps, actor: StaffActor, { scope }: { readonly scope: Scope }): Promise<CutResult> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    // All of these are live, and nobody else writes while this transaction is open: all are revoked.
    const hit = within(actor, await grantsInScope(tx, scope));
    await setAllRevoked(tx, hit.map((grant) => grant.id), actor.id, now);
    await record(deps, tx, ...hit.map((grant) => aboutGrant('grant.revoked', actor, now, grant, { scope: scope.kind })));
    return { grants: hit.map((grant) => grant.id) };
  });
}
