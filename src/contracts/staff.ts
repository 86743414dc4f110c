import { offeredRight } from '@/contracts/right';
import type { NoticeChoices } from '@/core/insight/notices';
import { z } from 'zod';
import { staffId } from '@/contracts/document';
import type { StaffId } from '@/core/base/ids';
import type { SenderLimits } from '@/core/policy/sender-limits';
import { emailAddress } from '@/contracts/address';
import { domainInput } from '@/contracts/conditions';
import { folderId, type FolderRow } from '@/contracts/folder';
import { ROLES, type Role } from '@/core/policy/permissions';

/** A shared secret on offer: as text, as an SVG picture to photograph, and a seal that it was this server's. */
export type FactorOffer = {
  readonly secret: string;
  readonly seal: string;
  readonly picture: string;
};
export type YouPage = {
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly factor: boolean;
  readonly notices: NoticeChoices;
};

export const inviteInput = z.object({
  name: z.string().trim().min(1, 'the name is missing').max(120),
  email: emailAddress,
  role: z.enum(ROLES),
});
export type InviteInput = z.infer<typeof inviteInput>;

export const changeStaffInput = z.object({
  id: staffId,
  role: z.enum(ROLES).optional(),
  disabled: z.boolean().optional(),
  /** `false` takes a second factor off that was lost. */ factor: z.literal(false).optional(),
});
export type ChangeStaffInput = z.infer<typeof changeStaffInput>;

export const inviteAgainInput = z.object({ id: staffId });
/** The most that a sender may give. `seen`: when the limits were set that the person saw, or null. */
export const senderLimitsInput = z.object({
  id: staffId,
  limits: z.strictObject({
    domains: z.array(domainInput).max(200).nullable(),
    folders: z.array(folderId).max(200).nullable(),
    rights: z
      .array(offeredRight)
      .refine(
        (rights) => rights.includes('read'),
        'without Read nothing could be sent: make them an auditor instead',
      )
      .nullable(),
    days: z.number().int().min(1).max(3_650).nullable(),
  }),
  seen: z.number().int().nullable(),
});
export type SenderLimitsInput = z.infer<typeof senderLimitsInput>;
export type OwnLimits = {
  readonly limits: SenderLimits;
  readonly setBy: string;
  readonly setAt: number;
};
export type SenderLimitsChanged = { readonly before: SenderLimits; readonly setAt: number | null };

export type StaffRow = {
  readonly id: StaffId;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly state: 'invited' | 'active' | 'disabled';
  readonly invitedAt: number;
  readonly factor: boolean;
  /** What they may send at most; null: no limits of their own. */
  readonly limits: OwnLimits | null;
};
export type StaffList = {
  readonly staff: readonly StaffRow[];
  readonly folders: readonly FolderRow[];
  readonly self: StaffId;
  readonly mail: boolean;
};
