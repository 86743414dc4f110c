import { z } from 'zod';
import { emailAddress } from '@/contracts/address';
import { groupId } from '@/contracts/dispatch';
import type { GroupId } from '@/core/base/ids';

/** The most people that are added at once; more come as a list. */
const MOST_ADDED = 2_000;

/** People who are to be known, and the group they are put into: one that is there, or a new one by its name. */
export const addToPeopleInput = z.object({
  people: z
    .array(
      z.object({
        address: emailAddress,
        name: z.string().trim().max(120).default(''),
        organisation: z.string().trim().max(120).default(''),
      }),
    )
    .min(1, 'add at least one person')
    .max(MOST_ADDED),
  group: z
    .union([
      z.object({ id: groupId }),
      z.object({ name: z.string().trim().min(1, 'the group needs a name').max(80) }),
    ])
    .nullable(),
});
export type AddToPeopleInput = z.infer<typeof addToPeopleInput>;

export type AddedToPeople = {
  readonly added: number;
  /** Who was known already; what was not known of them is filled in. */
  readonly known: number;
  readonly group: GroupId | null;
};
