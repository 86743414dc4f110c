import 'server-only';
import { newId } from '@/core/base/ids';
import { equalBytes, utf8 } from '@/core/base/bytes';
import type { SetUpInput } from '@/contracts/organisation';
import { normaliseAddress } from '@/core/policy/address';
import type { StaffIdentity } from '@/server/identity/staff-identity';
import {
  findOrganisation,
  insertOrganisation,
} from '@/server/repositories/staff/organisation-repository';
import { insertStaff, setPassword } from '@/server/repositories/staff/staff-repository';
import type { Deps } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';

/** The token that the console printed: anyone who can read it runs this server. */
export function setUpToken({ vault }: Pick<Deps, 'vault'>): string {
  return vault.mac('set-up token', 'first visit').slice(0, 24);
}

export async function isSetUp(deps: Deps): Promise<boolean> {
  return (await findOrganisation(deps.db.read)) !== null;
}

/**
 * Makes the organisation and its first administrator, once.
 *
 * @throws ServiceError `NOT_ALLOWED` with a wrong token, `CONFLICT` where it was done before
 */
export async function setUpOrganisation(
  deps: Deps,
  identity: StaffIdentity,
  input: SetUpInput,
  demo = false,
): Promise<{ readonly staffId: `stf_${string}` }> {
  if (!equalBytes(utf8(input.token), utf8(setUpToken(deps))))
    throw new ServiceError('set-up-token-wrong');
  const staffId = newId('staff', deps.random);
  const password = await identity.hashPassword(input.password, 'set-up');
  const now = deps.clock.now();
  deps.calendar.setZone(input.zone);
  await deps.db.write(async (tx) => {
    if ((await findOrganisation(tx)) !== null) throw new ServiceError('set-up-before');
    await insertOrganisation(tx, {
      name: input.organisation,
      zone: input.zone,
      recoveryKey: input.recoveryKey,
      demo,
      createdAt: now,
    });
    await insertStaff(
      tx,
      {
        id: staffId,
        name: input.name,
        email: normaliseAddress(input.email) ?? input.email,
        role: 'administrator',
      },
      now,
    );
    await setPassword(tx, staffId, password, now);
    await record(deps, tx, {
      action: 'organisation.set-up',
      outcome: 'done',
      actor: { kind: 'staff', id: staffId },
      occurredAt: now,
      details: { recovery: input.recoveryKey !== null, demo },
    });
  });
  return { staffId };
}
