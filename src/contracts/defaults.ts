import { z } from 'zod';
import { offeredRight } from '@/contracts/right';
import type { Defaults, LevelDefaults } from '@/core/policy/defaults';
import { LEVELS } from '@/core/policy/levels';
import { rightsInput } from '@/contracts/dispatch';
import { watermarkOf } from '@/contracts/watermark';
import type { ImpactFound } from '@/contracts/impact';

/** Layers that one level adds: several of them share a page with the dispatch's own. */
const MAX_LEVEL_LAYERS = 3;

const defaults: z.ZodType<Defaults, Defaults> = z
  .strictObject({
    rights: z.array(offeredRight).nullable(),
    days: z.union([z.number().int().min(1).max(3_650), z.literal('no-end')]).nullable(),
    prints: z.number().int().min(1).max(999).nullable(),
  })
  .superRefine(({ rights, prints }, context) => {
    const found = rights === null ? null : rightsInput.safeParse({ rights, prints });
    for (const { message } of found?.error?.issues ?? [])
      context.addIssue({ code: 'custom', path: ['rights'], message });
  });

/** What a level sets, as it is to be; nothing set: none. `seen`: when that was set which the person saw, or null. */
export const defaultsInput = z.object({
  level: z.enum(LEVELS),
  subject: z.string().max(64),
  defaults,
  watermark: watermarkOf(MAX_LEVEL_LAYERS),
  seen: z.number().int().nullable(),
});
export type DefaultsInput = z.infer<typeof defaultsInput>;

export type DefaultsRow = LevelDefaults & { readonly name: string };
/**
 * Whom a change touches at their next open, which the watermark alone does; and what of it can have
 * no effect, in words.
 */
export type DefaultsImpact = ImpactFound & { readonly idle: readonly string[] };
export type DefaultsChanged = {
  readonly before: Pick<LevelDefaults, 'defaults' | 'watermark'>;
  readonly setAt: number | null;
};
