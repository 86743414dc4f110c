import 'server-only';
import type { SignInInput } from '@/contracts/identity';
import { normaliseAddress } from '@/core/policy/address';
import type { StaffIdentity } from '@/server/identity/staff-identity';
import { networkKey } from '@/server/limits/limits';
import { accountOf, findStaffByEmail } from '@/server/repositories/staff/staff-repository';
import type { Deps, Origin, StaffActor } from '@/server/services/base/deps';
import { checkFactor } from '@/server/services/staff/prove-staff';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { areOurs } from '@/server/services/base/trusted-rows';
import { recordAlone, whereabouts } from '@/server/services/base/record';

/**
 * Signs a member of staff in. A success is recorded with the session itself.
 *
 * @returns cookies for the browser. @throws ServiceError `NOT_SIGNED_IN`, `NEEDS_CODE`, `TOO_MANY`
 */
export async function signIn(
  deps: Deps,
  identity: StaffIdentity,
  from: Origin,
  headers: Headers,
  input: SignInInput,
): Promise<readonly string[]> {
  const email = normaliseAddress(input.email) ?? input.email;
  const network = networkKey(from.network);
  const wait = Math.max(
    await deps.limits.signInByNetwork(network),
    await deps.limits.signIn(`${network} ${email}`),
  );
  if (wait > 0) throw tooMany(wait);
  const staff = await findStaffByEmail(deps.db.read, email);
  // One hash for everybody, whatever is known of them: time tells nobody who works here, who is
  // disabled, or who has a second factor.
  const right = await identity.isPassword(staff?.id ?? null, input.password, network);
  // A password that another program wrote is nobody's.
  if (
    right &&
    staff?.disabledAt === null &&
    (await areOurs(deps, deps.db.read, {
      staff: [staff.id],
      staff_accounts: [accountOf(staff.id)],
    }))
  ) {
    // Asked for only once the password was right: nobody learns from outside who has one.
    await checkFactor(deps, staff, input.code);
    const cookies = await identity.signIn(email, input.password, headers);
    if (cookies !== null) return cookies;
  }
  await recordAlone(deps, {
    action: 'staff.signed-in',
    outcome: 'refused',
    reason: 'wrong-credentials',
    actor: { kind: 'stranger', id: null },
    occurredAt: deps.clock.now(),
    personal: { address: email, ...whereabouts(deps, from) },
  });
  throw new ServiceError('sign-in-wrong');
}

export async function signOut(
  deps: Deps,
  identity: StaffIdentity,
  actor: StaffActor,
  headers: Headers,
): Promise<readonly string[]> {
  const cookies = await identity.signOut(headers);
  await recordAlone(deps, {
    action: 'staff.signed-out',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
  });
  return cookies;
}
