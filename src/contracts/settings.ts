import { z } from 'zod';

/** Why somebody takes access away or gives it back; absent or empty: they do not say. */
export const reasonInput = z.string().trim().max(500).optional();

/** How work is done in this organisation. */
export const workSettings = z.object({
  /** Whether a reason is asked for when access is taken, narrowed or given back, and when keys are destroyed. */
  reasonsAsked: z.boolean().default(false),
});
export type WorkSettings = z.infer<typeof workSettings>;
