import 'server-only';
import type { Role } from '@/core/policy/permissions';
import { newId, randomText, type StaffId } from '@/core/base/ids';
import { DAY, HOUR } from '@/core/base/time';
import type { ChangeStaffInput, InviteInput, StaffList } from '@/contracts/staff';
import type { ChoosePasswordInput } from '@/contracts/identity';
import type { Transaction } from '@/server/db/database';
import type { StaffIdentity } from '@/server/identity/staff-identity';
import { SECOND_PERSON_AFTER } from '@/core/policy/consent';
import { newAdministratorMail, passwordMail } from '@/server/mail/staff-mail';
import { queueMail } from '@/server/repositories/mailing/mail-repository';
import { networkKey } from '@/server/limits/limits';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import {
  changeStaffRow,
  endSessions,
  findStaff,
  findStaffByEmail,
  insertStaff,
  isTicket,
  listAdministrators,
  listStaff,
  otherAdministrators,
  replaceTicket,
  setFactor,
  setPassword,
  takeTicket,
  namesOfStaff,
  type StaffRecord,
} from '@/server/repositories/staff/staff-repository';
import { listSenderLimits } from '@/server/repositories/policy/sender-limits-repository';
import type { Deps, Origin, StaffActor, StrangerActor } from '@/server/services/base/deps';
import { viewFolders } from '@/server/services/filing/manage-filing';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { record, recordAlone, whereabouts } from '@/server/services/base/record';

const INVITATION_LASTS = 7 * DAY;
const RESET_LASTS = HOUR;
const TOKEN_CHARACTERS = 32;

/** Everybody on the staff. */
export async function viewStaff(deps: Deps, actor: StaffActor): Promise<StaffList> {
  const [rows, limits, names, folders] = await Promise.all([
    listStaff(deps.db.read),
    listSenderLimits(deps.db.read),
    namesOfStaff(deps.db.read),
    viewFolders(deps),
  ]);
  const limitsOf = (id: StaffId) => {
    const found = limits.find(({ staffId }) => staffId === id);
    return found === undefined
      ? null
      : { limits: found.limits, setBy: names.get(found.setBy) ?? '', setAt: found.setAt };
  };
  return {
    staff: rows.map(({ row, hasPassword }) => ({
      id: row.id,
      name: row.name,
      email: row.email,
      role: row.role,
      invitedAt: row.createdAt.getTime(),
      factor: row.factor !== null,
      limits: limitsOf(row.id),
      state: row.disabledAt !== null ? 'disabled' : hasPassword === null ? 'invited' : 'active',
    })),
    folders,
    self: actor.id,
    mail: deps.mailer !== null,
  };
}

/** Queues the message with the one way to choose a password; any earlier one is worth nothing from now on. */
async function mailTicket(
  deps: Deps,
  tx: Transaction,
  staff: { readonly id: StaffId; readonly email: string; readonly name: string },
  purpose: 'invitation' | 'reset',
  by: string,
): Promise<void> {
  const now = deps.clock.now();
  const token = randomText(TOKEN_CHARACTERS, deps.random);
  const expiresAt = now + (purpose === 'invitation' ? INVITATION_LASTS : RESET_LASTS);
  await replaceTicket(tx, {
    tokenMac: deps.vault.mac('staff ticket', token),
    staffId: staff.id,
    expiresAt,
    createdAt: now,
  });
  const organisation = await findOrganisation(tx);
  const mail = passwordMail({
    purpose,
    by,
    name: staff.name,
    organisation: organisation?.name ?? '',
    zone: organisation?.zone ?? 'UTC',
    until: expiresAt,
    link: `${deps.publicUrl}/password/${token}`,
  });
  await queueMail(tx, [
    {
      id: newId('message', deps.random),
      dispatchId: null,
      recipientId: null,
      toAddress: staff.email,
      ...mail,
      state: 'waiting',
      urgent: true,
      nextAttemptAt: now,
      createdAt: now,
    },
  ]);
}

/**
 * Invites a colleague by mail. They choose their own password.
 *
 * @throws ServiceError `CONFLICT` where the address is on the staff, `MAIL_NOT_SET_UP`
 */
export async function inviteStaff(
  deps: Deps,
  actor: StaffActor,
  input: InviteInput,
): Promise<{ readonly id: StaffId }> {
  if (deps.mailer === null) throw new ServiceError('mail-not-set-up-for-invitations');
  const id = newId('staff', deps.random);
  await deps.db.write(async (tx) => {
    if ((await findStaffByEmail(tx, input.email)) !== null)
      throw new ServiceError('on-staff-already', { email: input.email });
    await insertStaff(tx, { id, ...input }, deps.clock.now());
    await mailTicket(deps, tx, { id, ...input }, 'invitation', actor.name);
    if (input.role === 'administrator') await tellAdministrators(deps, tx, actor, { id, ...input });
    await record(deps, tx, {
      action: 'staff.invited',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: deps.clock.now(),
      details: { staff: id, role: input.role },
      personal: { address: input.email, name: input.name },
    });
  });
  return { id };
}

/** Tells every administrator that somebody becomes one: they count as a second person before long. */
async function tellAdministrators(
  deps: Deps,
  tx: Transaction,
  by: StaffActor,
  { id, name, email }: { readonly id: StaffId; readonly name: string; readonly email: string },
): Promise<void> {
  const now = deps.clock.now();
  const organisation = await findOrganisation(tx);
  const mail = newAdministratorMail({
    by: by.name,
    name,
    email,
    organisation: organisation?.name ?? '',
    zone: organisation?.zone ?? 'UTC',
    from: now + SECOND_PERSON_AFTER,
    link: `${deps.publicUrl}/settings`,
  });
  const others = (await listAdministrators(tx)).filter((each) => each.id !== id);
  await queueMail(
    tx,
    others.map((each) => ({
      id: newId('message', deps.random),
      toAddress: each.email,
      ...mail,
      state: 'waiting' as const,
      urgent: true,
      nextAttemptAt: now,
      createdAt: now,
    })),
  );
}

/** Mails a new way to choose a password, for somebody who lost the first one. */
export async function mailStaffAgain(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: StaffId },
): Promise<Record<string, never>> {
  await deps.db.write(async (tx) => {
    const staff = await findStaff(tx, id);
    if (staff === null) throw new ServiceError('no-colleague');
    if (staff.disabledAt !== null)
      throw new ServiceError('colleague-disabled', { name: staff.name });
    await mailTicket(deps, tx, staff, 'invitation', actor.name);
    await record(deps, tx, {
      action: 'staff.invited',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: deps.clock.now(),
      details: { staff: id, again: true },
      personal: { address: staff.email, name: staff.name },
    });
  });
  return {};
}

/** What of a colleague's row a change makes another; what it does not name stays. */
function rowOf({ role, disabled }: Pick<ChangeStaffInput, 'role' | 'disabled'>, now: number) {
  return {
    ...(role === undefined ? {} : { role }),
    ...(disabled === undefined ? {} : { disabledAt: disabled ? now : null }),
  };
}

function standingText(role: Role, disabled: boolean): string {
  return `${role}${disabled ? ', disabled' : ''}`;
}

/** Whether somebody who can act as an administrator could not any more. */
function losesAdministrator(
  before: Pick<StaffRecord, 'role' | 'disabledAt'>,
  after: Role,
  disabled: boolean | undefined,
): boolean {
  if (before.role !== 'administrator' || before.disabledAt !== null) return false;
  return disabled === true || after !== 'administrator';
}

/** Takes a second factor off that was lost. */
async function takeFactor(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  id: StaffId,
  now: number,
): Promise<void> {
  await setFactor(tx, id, { factor: null, factorGeneration: null, factorStep: null });
  await record(deps, tx, {
    action: 'staff.factor-changed',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: now,
    details: { staff: id, factor: false },
  });
}

async function colleagueToChange(tx: Transaction, actor: StaffActor, id: StaffId) {
  const found = await findStaff(tx, id);
  if (found === null) throw new ServiceError('no-colleague');
  if (id === actor.id) throw new ServiceError('own-role');
  return found;
}

/**
 * Changes a colleague's role, or whether they may sign in; their sessions end with either, so that it bites at once.
 *
 * @throws ServiceError `NOT_FOUND`, `CONFLICT` where it is oneself or the last administrator
 */
export async function changeStaff(
  deps: Deps,
  actor: StaffActor,
  { id, role, disabled, factor }: ChangeStaffInput,
): Promise<Record<string, never>> {
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    const before = await colleagueToChange(tx, actor, id);
    const after = role ?? before.role;
    if (losesAdministrator(before, after, disabled) && (await otherAdministrators(tx, id)) === 0)
      throw new ServiceError('last-administrator');
    const wasDisabled = before.disabledAt !== null;
    const begins = after !== before.role || (disabled === false && wasDisabled);
    if (begins && after === 'administrator') await tellAdministrators(deps, tx, actor, before);
    await changeStaffRow(
      tx,
      id,
      { ...rowOf({ role, disabled }, now), ...(begins ? { roleSince: now } : {}) },
      now,
    );
    await endSessions(tx, id);
    if (factor === false) await takeFactor(deps, tx, actor, id, now);
    await record(deps, tx, {
      action: 'staff.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      details: {
        staff: id,
        before: standingText(before.role, wasDisabled),
        after: standingText(after, disabled ?? wasDisabled),
      },
    });
  });
  return {};
}

/** Mails a way to choose a new password, where the address is on the staff; the answer is the same where it is not. */
export async function requestPassword(
  deps: Deps,
  actor: StrangerActor,
  { email }: { readonly email: string },
): Promise<Record<string, never>> {
  const wait = await deps.limits.passwordMails(networkKey(actor.from.network));
  if (wait > 0) throw tooMany(wait);
  const staff = await findStaffByEmail(deps.db.read, email);
  if (staff?.disabledAt === null)
    await deps.db.write((tx) => mailTicket(deps, tx, staff, 'reset', ''));
  return {};
}

/**
 * Sets the password of the person who holds the ticket, once.
 *
 * @throws ServiceError `NOT_FOUND` where the ticket is unknown, used or over
 */
export async function choosePassword(
  deps: Deps,
  identity: StaffIdentity,
  from: Origin,
  input: ChoosePasswordInput,
): Promise<void> {
  const now = deps.clock.now();
  const network = networkKey(from.network);
  const wait = await deps.limits.guessesByNetwork(network);
  if (wait > 0) throw tooMany(wait);
  const ticket = deps.vault.mac('staff ticket', input.token);
  // Nothing costly is done for a ticket that is none.
  const hashed = (await isTicket(deps.db.read, ticket, now))
    ? await identity.hashPassword(input.password, network)
    : '';
  const chosen = await deps.db.write(async (tx) => {
    const id = hashed === '' ? null : await takeTicket(tx, ticket, now);
    const staff = id === null ? null : await findStaff(tx, id);
    if (staff?.disabledAt !== null) return false;
    await setPassword(tx, staff.id, hashed, now);
    await record(deps, tx, {
      action: 'staff.password-chosen',
      outcome: 'done',
      actor: { kind: 'staff', id: staff.id },
      occurredAt: now,
      personal: whereabouts(deps, from),
    });
    return true;
  });
  if (chosen) return;
  await recordAlone(deps, {
    action: 'staff.password-chosen',
    outcome: 'refused',
    reason: 'no-ticket',
    actor: { kind: 'stranger', id: null },
    occurredAt: now,
    personal: whereabouts(deps, from),
  });
  throw new ServiceError('ticket-used');
}
