import { z } from 'zod';
import { isId, type StaffId } from '@/core/base/ids';
import { normaliseAddress } from '@/core/policy/address';
import { ROLES, type Role } from '@/core/policy/powers';

const staffId = z.custom<StaffId>((value) => typeof value === 'string' && isId('staff', value), 'no such colleague');
const email = z.string().transform((text, context) => {
  const address = normaliseAddress(text);
  if (address === null) context.addIssue({ code: 'custom', message: 'that is no email address' });
  return address ?? z.NEVER;
});

/** Shortest password, in characters. */
export const MIN_PASSWORD = 12;
export const password = z.string().min(MIN_PASSWORD, `at least ${String(MIN_PASSWORD)} characters`).max(128);

export const inviteInput = z.object({ name: z.string().trim().min(1, 'a name is needed').max(120), email, role: z.enum(ROLES) });
export type InviteInput = z.infer<typeof inviteInput>;

export const changeStaffInput = z.object({ id: staffId, role: z.enum(ROLES).optional(), disabled: z.boolean().optional() });
export type ChangeStaffInput = z.infer<typeof changeStaffInput>;

export const inviteAgainInput = z.object({ id: staffId });
export const passwordMailInput = z.object({ email });
export const choosePasswordInput = z.object({ token: z.string().min(1).max(80), password });
export type ChoosePasswordInput = z.infer<typeof choosePasswordInput>;

export type StaffRow = {
  readonly id: StaffId;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly state: 'invited' | 'active' | 'disabled';
  readonly invitedAt: number;
};
export type StaffList = { readonly staff: readonly StaffRow[]; readonly self: StaffId; readonly mail: boolean };
