import { z } from 'zod';
import { recipientId } from '@/contracts/access';
import { documentId } from '@/contracts/document';
import { termsInput, watermark } from '@/contracts/dispatch';
import type { KeptTermsRow } from '@/contracts/kept-terms';
import type { DocumentId } from '@/core/base/ids';

export const lackingInput = z.object({ id: recipientId, q: z.string().trim().max(200).default('') });
export const giveInput = z.object({ id: recipientId, documents: z.array(documentId).min(1, 'choose at least one document').max(50, 'at most 50 documents at a time'), terms: termsInput, watermark });
export type GiveInput = z.infer<typeof giveInput>;

/** Documents somebody cannot open now, which the caller may give them. */
export type Lacking = {
  readonly rows: readonly { readonly id: DocumentId; readonly reference: string; readonly title: string; readonly marking: string | null; /** How it ended, where they held it once. */ readonly once: 'revoked' | 'expired' | null }[];
  readonly total: number;
  readonly terms: readonly KeptTermsRow[];
  readonly now: number;
};
