import { z } from 'zod';
import { LEAVES, WAYS, type Rule } from '@/core/policy/rules';

/** A decision about one way of handing something out. `seen`: when the one was made that the person saw, or null. */
export const putRuleInput = z.object({
  way: z.enum(WAYS),
  leave: z.enum(LEAVES),
  reason: z.string().trim().max(200, 'at most 200 characters').default(''),
  seen: z.number().int().nullable(),
});
export type PutRuleInput = z.infer<typeof putRuleInput>;

export type RuleRow = Rule & {
  readonly setByName: string;
  /** Dispatches that went out in this way, of those that still count. */ readonly dispatches: number;
};
export type RuleChanged = {
  readonly before: Pick<Rule, 'leave' | 'reason'>;
  readonly setAt: number;
};
