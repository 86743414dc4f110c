import type { StaffId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import type { Role } from '@/core/policy/permissions';
import { changeStaffRow } from '@/server/repositories/staff/staff-repository';
import { choosePassword, inviteStaff } from '@/server/services/staff/manage-staff';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { readMailroom, readMessage } from '@/server/services/demo/read-mailroom';
import type { StaffActor } from '@/server/services/base/deps';
import type { Product } from './product';

export const PASSWORD = 'another long enough password';

/** The token in the newest message about a password that this address was mailed; empty where there is none. */
export async function passwordToken({ deps }: Product, email: string): Promise<string> {
  await deliverMail(deps);
  const { messages } = await readMailroom(deps, { address: email });
  const message = messages.find(
    ({ subject }) => subject.includes('account') || subject.includes('password'),
  );
  if (message === undefined) return '';
  const { raw } = await readMessage(deps, { id: message.id });
  return /\/password\/([0-9a-z]+)/.exec(raw.replaceAll('=\r\n', ''))?.[1] ?? '';
}

/** A colleague who was invited by mail, has chosen a password and has been here for a while. */
export async function joinStaff(
  product: Product,
  role: Role,
  name: string = role,
  since = product.clock.now() - 30 * DAY,
): Promise<StaffActor & { readonly id: StaffId }> {
  const email = `${name}@tern-quill.example`;
  const { id } = await inviteStaff(product.deps, product.ida, { name, email, role });
  await choosePassword(product.deps, product.container.identity, product.ida.from, {
    token: await passwordToken(product, email),
    password: PASSWORD,
  });
  await product.deps.db.write((tx) => changeStaffRow(tx, id, { roleSince: since }, since));
  return {
    kind: 'staff',
    id,
    name,
    email,
    role,
    session: 'test',
    proven: true,
    from: product.ida.from,
  };
}
