import { z } from 'zod';
import { emailAddress } from '@/contracts/address';
import { domainInput } from '@/contracts/conditions';

/** Why somebody takes access away or gives it back; absent or empty: they do not say. */
export const reasonInput = z.string().trim().max(500).optional();

/** How work is done in this organisation. */
const work = z.object({
  /** Whether a reason is asked for when access is taken, narrowed or given back, and when keys are destroyed. */
  reasonsAsked: z.boolean(),
  /** How many days before an end its recipient is told of it; 0: they are not. */
  endsTold: z.union([z.literal(0), z.literal(1), z.literal(3), z.literal(7)]),
  /** Who outside is mailed a signed checkpoint of the ledger every day. */
  checkpointsTo: z.array(emailAddress).max(10),
  /** Whether a keeper outside may fetch the newest checkpoint without signing in. */
  checkpointsOpen: z.boolean(),
  /** How many minutes a dispatch is held back, so that a mistake can be caught; 0: it leaves at once. */
  heldFor: z.union([z.literal(0), z.literal(2), z.literal(5), z.literal(10), z.literal(30)]),
  /** The organisation's own domains, as `@yard.example`: people there are inside. */
  ownDomains: z.array(domainInput).max(50),
  /** The colour above every message, as `#1f6f78`. */
  mailColour: z
    .string()
    .trim()
    .toLowerCase()
    .regex(/^#[0-9a-f]{6}$/, 'a colour is written as #1f6f78'),
  /** What stands below every message; empty: nothing. */
  mailSignature: z.string().trim().max(500),
});
export type WorkSettings = z.infer<typeof work>;
/** A change of it: what is not named stays as it is by then. */
export const workChange = work.partial();
export type WorkChange = z.infer<typeof workChange>;

/** What nobody has chosen yet. */
const UNCHOSEN: WorkSettings = {
  reasonsAsked: false,
  endsTold: 0,
  checkpointsTo: [],
  checkpointsOpen: false,
  heldFor: 0,
  ownDomains: [],
  mailColour: '#1f6f78',
  mailSignature: '',
};
/** The settings as they are stored, which may name fewer than there are. */
export const workSettings = workChange.transform((kept): WorkSettings => ({
  ...UNCHOSEN,
  ...kept,
}));
