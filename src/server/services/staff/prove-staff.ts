import 'server-only';
import QRCode from 'qrcode';
import type { FactorOffer, YouPage } from '@/contracts/staff';
import type { ConfirmFactorInput, ProofInput } from '@/contracts/identity';
import { equalBytes, fromUtf8, utf8 } from '@/core/base/bytes';
import type { StaffIdentity } from '@/server/identity/staff-identity';
import { factorAddress, newFactorSecret, stepOfCode } from '@/server/identity/second-factor';
import {
  findStaff,
  setFactor,
  setFactorStep,
  setSessionProven,
  type StaffRecord,
} from '@/server/repositories/staff/staff-repository';
import { choicesOf } from '@/server/services/staff/notice-choices';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { record, recordAlone, whereabouts } from '@/server/services/base/record';

/** @throws ServiceError `PROVE_AGAIN` where password and second factor were given too long ago for this */
export function needProof(actor: StaffActor): void {
  if (!actor.proven) throw new ServiceError('prove-again');
}

/**
 * Checks the code of somebody's second factor, where they have one, and uses it up.
 *
 * @throws ServiceError `NEEDS_CODE` where it is missing or wrong
 */
export async function checkFactor(
  deps: Deps,
  staff: StaffRecord,
  code: string | undefined,
): Promise<void> {
  if (staff.factor === null) return;
  if (code === undefined || code === '') throw new ServiceError('type-app-code');
  const secret = fromUtf8(
    deps.vault.unwrap(
      { wrapped: staff.factor, generation: staff.factorGeneration ?? 0 },
      `factor ${staff.id}`,
    ),
  );
  // The real clock, not the demo's: the app on the phone knows no other.
  const step = stepOfCode(secret, code, Date.now(), staff.factorStep);
  const used = step !== null && (await deps.db.write((tx) => setFactorStep(tx, staff.id, step)));
  if (!used) throw new ServiceError('app-code-wrong');
}

/** Proves again who is at the screen, for what reaches far; holds for some minutes. */
export async function proveAgain(
  deps: Deps,
  identity: StaffIdentity,
  actor: StaffActor,
  input: ProofInput,
): Promise<void> {
  const wait = await deps.limits.signIn(`${actor.session} proof`);
  if (wait > 0) throw tooMany(wait);
  const staff = await findStaff(deps.db.read, actor.id);
  const right = staff !== null && (await identity.isPassword(actor.id, input.password, actor.id));
  const by = { kind: 'staff' as const, id: actor.id };
  if (!right) {
    await recordAlone(deps, {
      action: 'staff.proven',
      outcome: 'refused',
      reason: 'wrong-credentials',
      actor: by,
      occurredAt: deps.clock.now(),
      personal: whereabouts(deps, actor.from),
    });
    throw new ServiceError('password-wrong');
  }
  await checkFactor(deps, staff, input.code);
  await deps.db.write(async (tx) => {
    await setSessionProven(tx, actor.session, Date.now());
    await record(deps, tx, {
      action: 'staff.proven',
      outcome: 'done',
      actor: by,
      occurredAt: deps.clock.now(),
      personal: whereabouts(deps, actor.from),
    });
  });
}

/** What somebody sees about themselves. */
export async function viewYou(deps: Deps, actor: StaffActor): Promise<YouPage> {
  const staff = await findStaff(deps.db.read, actor.id);
  return {
    name: actor.name,
    email: actor.email,
    role: actor.role,
    factor: staff?.factor != null,
    notices: await choicesOf(deps.db.read, actor.id),
  };
}

/**
 * Offers a new shared secret. Nothing is kept until a code proves that the app has it. @throws
 * ServiceError `PROVE_AGAIN`
 */
export async function offerFactor(deps: Deps, actor: StaffActor): Promise<FactorOffer> {
  needProof(actor);
  const secret = newFactorSecret(deps.random);
  return {
    secret,
    seal: deps.vault.mac('factor offer', `${actor.id} ${secret}`),
    picture: await QRCode.toString(factorAddress(secret, actor.email), { type: 'svg', margin: 1 }),
  };
}

/** Keeps an offered secret once its code was given. @throws ServiceError `INVALID`, `PROVE_AGAIN` */
export async function confirmFactor(
  deps: Deps,
  actor: StaffActor,
  { secret, seal, code }: ConfirmFactorInput,
): Promise<Record<string, never>> {
  // Putting another factor in the place of the first reaches as far as taking it away.
  needProof(actor);
  if (!equalBytes(utf8(deps.vault.mac('factor offer', `${actor.id} ${secret}`)), utf8(seal)))
    throw new ServiceError('factor-of-another');
  const step = stepOfCode(secret, code, Date.now(), null);
  if (step === null) throw new ServiceError('app-clock');
  await deps.db.write(async (tx) => {
    const { wrapped, generation } = deps.vault.wrap(utf8(secret), `factor ${actor.id}`);
    await setFactor(tx, actor.id, {
      factor: wrapped,
      factorGeneration: generation,
      factorStep: step,
    });
    await record(deps, tx, {
      action: 'staff.factor-changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: deps.clock.now(),
      details: { staff: actor.id, factor: true },
    });
  });
  return {};
}

/** Goes back to the password alone. @throws ServiceError `PROVE_AGAIN` */
export async function removeFactor(deps: Deps, actor: StaffActor): Promise<Record<string, never>> {
  needProof(actor);
  await deps.db.write(async (tx) => {
    await setFactor(tx, actor.id, { factor: null, factorGeneration: null, factorStep: null });
    await record(deps, tx, {
      action: 'staff.factor-changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: deps.clock.now(),
      details: { staff: actor.id, factor: false },
    });
  });
  return {};
}
