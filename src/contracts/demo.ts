import { z } from 'zod';
import { DAY } from '@/core/base/time';

/** Where and on what the demo's recipients can pretend to be. */
export const demoInput = z.object({
  /** How far the clock goes forward from where it is, in ms; never back. */
  forward: z
    .number()
    .int()
    .min(0)
    .max(400 * DAY)
    .optional(),
  network: z.ipv4().nullable().optional(),
  agent: z.string().max(300).nullable().optional(),
});
export type DemoInput = z.infer<typeof demoInput>;

/** What a browser pretends in a demo; kept in its cookie. */
export type Pretence = { readonly network: string | null; readonly agent: string | null };

export type DemoBar = {
  readonly now: number;
  /** What the demo's clock is ahead of the real one, in ms. */
  readonly ahead: number;
  readonly mailboxes: readonly { readonly address: string; readonly name: string }[];
  readonly places: readonly { readonly network: string; readonly name: string }[];
  readonly devices: readonly { readonly agent: string; readonly name: string }[];
  readonly pretence: Pretence;
};
