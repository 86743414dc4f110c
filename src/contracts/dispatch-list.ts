import { z } from 'zod';
import type { DispatchId } from '@/core/base/ids';
import { recipientId } from '@/contracts/access';
import { documentId, staffId, type Colleague } from '@/contracts/document';
import { markingId, type MarkingRow } from '@/contracts/marking';
import type { SavedView } from '@/contracts/views';

/** Where a dispatch stands; one may stand in several places. */
const DISPATCH_STATES = ['active', 'over', 'never-opened', 'not-delivered', 'asked'] as const;
export type DispatchState = (typeof DISPATCH_STATES)[number];

/** Which dispatches are listed; absent: all. Days are both inside, in the organisation's zone. */
export const listDispatchesInput = z.object({
  /** Found in the subject, the reference, the sender, a document or a recipient. */
  q: z.string().trim().max(200).default(''),
  sender: staffId.optional().catch(undefined),
  organisation: z.string().trim().max(120).optional(),
  recipient: recipientId.optional().catch(undefined),
  document: documentId.optional().catch(undefined),
  marking: markingId.optional().catch(undefined),
  state: z.enum(DISPATCH_STATES).optional().catch(undefined),
  from: z.iso.date().optional().catch(undefined),
  to: z.iso.date().optional().catch(undefined),
});
export type ListDispatchesInput = z.infer<typeof listDispatchesInput>;

export type DispatchRow = {
  readonly id: DispatchId;
  readonly reference: string;
  readonly subject: string;
  readonly sentAt: number;
  readonly sentBy: string;
  readonly documents: number;
  readonly people: number;
  /** Whether it is open to more than can be counted: a domain, or anyone who has a link. */
  readonly unknown: boolean;
  readonly opens: number;
  readonly refusals: number;
  readonly live: number;
  readonly nextEnd: number | null;
};

/** The list of dispatches, with what it can be narrowed by. */
export type DispatchesPage = {
  readonly rows: readonly DispatchRow[];
  /** How many there are in all. */
  readonly total: number;
  readonly filter: ListDispatchesInput;
  /** What a recipient or a document that is filtered by is called; `null`: by none, or one unknown. */
  readonly named: { readonly recipient: string | null; readonly document: string | null };
  readonly senders: readonly Colleague[];
  readonly organisations: readonly string[];
  readonly markings: readonly MarkingRow[];
  readonly views: readonly SavedView[];
};
