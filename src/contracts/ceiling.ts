import { z } from 'zod';
import { offeredRight } from '@/contracts/right';
import { type Limits } from '@/core/policy/ceiling';
import { LEVELS, type Level } from '@/core/policy/levels';
import { OFFERED_RIGHTS } from '@/core/policy/rights';
import { countriesInput, networksInput, offlineInput } from '@/contracts/conditions';
import type { ImpactFound } from '@/contracts/impact';

const limits = z
  .strictObject({
    rights: z
      .array(offeredRight)
      .refine(
        (rights) => rights.includes('read'),
        'a ceiling without Read would shut everybody out: revoke instead',
      )
      .nullable(),
    days: z.number().int().min(1).max(3_650).nullable(),
    prints: z.number().int().min(1).max(999).nullable(),
    opens: z.number().int().min(1).max(9_999).nullable(),
    countries: countriesInput.nullable(),
    networks: networksInput.nullable(),
    passkey: z.literal(true).nullable(),
    offline: z.union([z.literal('never'), offlineInput]).nullable(),
  })
  // Every right that is offered is no limit.
  .transform((given): Limits => ({
    ...given,
    rights:
      given.rights !== null && OFFERED_RIGHTS.every((right) => given.rights?.includes(right))
        ? null
        : given.rights,
  }));

/** A ceiling as it is to be; nothing limited: none. `seen`: when the one was set that the person saw, or null. */
export const ceilingInput = z.object({
  level: z.enum(LEVELS),
  subject: z.string().max(64),
  limits,
  seen: z.number().int().nullable(),
});
export type CeilingInput = z.infer<typeof ceilingInput>;
/** The same as it is typed. */
export type CeilingFields = z.input<typeof ceilingInput>;

export type CeilingRow = {
  readonly level: Level;
  readonly subject: string;
  readonly name: string;
  readonly limits: Limits;
  readonly setBy: string;
  readonly setAt: number;
};

/** What a change of a ceiling would do, and what of it cannot have any effect, in words. */
export type CeilingImpact = ImpactFound & { readonly idle: readonly string[] };
export type CeilingChanged = { readonly before: Limits; readonly setAt: number | null };
