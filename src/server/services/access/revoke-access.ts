import 'server-only';
import type { GrantId } from '@/core/base/ids';
import type { RevokeEffect, RevokePreview, RevokeResult } from '@/contracts/access';
import { reaches } from '@/core/policy/permissions';
import type { Scope } from '@/core/policy/scope';
import { grantsByIds } from '@/server/repositories/access/grant-reader';
import { setAllRevoked } from '@/server/repositories/access/grant-writer';
import { grantsInScope, type ScopedGrant } from '@/server/repositories/people/people-repository';
import { aboutRevoked, needReach, revokeGrantsIn } from '@/server/services/access/revoke-grants';
import { effectOfRevoke } from '@/server/services/access/revoke-effect';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { needBecause } from '@/server/services/base/reasons';
import { record } from '@/server/services/base/record';

function within(actor: StaffActor, found: readonly ScopedGrant[]): ScopedGrant[] {
  return found.filter((grant) => reaches(actor, grant));
}

/** Whom revoking this whole scope would hit, and who would still come in. */
export async function previewRevoke(
  deps: Deps,
  actor: StaffActor,
  { scope }: { readonly scope: Scope },
): Promise<RevokePreview> {
  const found = await grantsInScope(deps.db.read, scope);
  const hit = within(actor, found);
  return {
    grants: hit.length,
    documents: new Set(hit.map((grant) => grant.documentId)).size,
    effect: await effectOfRevoke(deps, actor, hit),
    beyondPower: found.length - hit.length,
  };
}

/**
 * What revoking these grants would do, or has done where they are revoked. @throws ServiceError
 * `NOT_ALLOWED` where one is somebody else's
 */
export async function previewRevoking(
  deps: Deps,
  actor: StaffActor,
  { grants }: { readonly grants: readonly GrantId[] },
): Promise<RevokeEffect> {
  await needReach(deps.db.read, actor, grants);
  return effectOfRevoke(deps, actor, await grantsByIds(deps.db.read, grants));
}

/**
 * Revokes every grant of a scope that this member of staff may change, and further ones that are
 * named, in one transaction.
 *
 * @returns the grants that were revoked now, so that exactly these can be reinstated
 * @throws ServiceError `NOT_ALLOWED` where one that is named is somebody else's
 */
export async function revokeAccess(
  deps: Deps,
  actor: StaffActor,
  {
    scope,
    also = [],
    reason,
  }: {
    readonly scope: Scope;
    readonly also?: readonly GrantId[] | undefined;
    readonly reason?: string | undefined;
  },
): Promise<RevokeResult> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const why = await needBecause(tx, reason);
    // All of these are live, and nobody else writes while this transaction is open: all are revoked.
    const hit = within(actor, await grantsInScope(tx, scope));
    await setAllRevoked(
      tx,
      hit.map((grant) => grant.id),
      actor.id,
      now,
    );
    await record(
      deps,
      tx,
      ...hit.map((grant) => aboutRevoked(actor, now, grant, { scope: scope.kind }, why)),
    );
    const ids = new Set(hit.map(({ id }) => id));
    const more = (await grantsByIds(tx, also))
      .filter(({ id, revokedAt }) => revokedAt === null && !ids.has(id))
      .map(({ id }) => id);
    if (more.length > 0) await revokeGrantsIn(deps, tx, actor, more, now, why);
    return { grants: [...ids, ...more] };
  });
}
