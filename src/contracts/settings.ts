import { z } from 'zod';
import { emailAddress } from '@/contracts/address';

/** Why somebody takes access away or gives it back; absent or empty: they do not say. */
export const reasonInput = z.string().trim().max(500).optional();

/** How work is done in this organisation. */
export const workSettings = z.object({
  /** Whether a reason is asked for when access is taken, narrowed or given back, and when keys are destroyed. */
  reasonsAsked: z.boolean().default(false),
  /** How many days before an end its recipient is told of it; 0: they are not. */
  endsTold: z.union([z.literal(0), z.literal(1), z.literal(3), z.literal(7)]).default(0),
  /** Who outside is mailed a signed checkpoint of the ledger every day. */
  checkpointsTo: z.array(emailAddress).max(10).default([]),
  /** Whether a keeper outside may fetch the newest checkpoint without signing in. */
  checkpointsOpen: z.boolean().default(false),
});
export type WorkSettings = z.infer<typeof workSettings>;
