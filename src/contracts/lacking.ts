import { z } from 'zod';
import { recipientId } from '@/contracts/access';
import { documentId } from '@/contracts/document';
import { termsInput } from '@/contracts/dispatch';
import { watermarkInput } from '@/contracts/watermark';
import type { SavedTermsRow } from '@/contracts/saved-terms';
import type { SavedTerms } from '@/core/policy/saved-terms';

export const lackingInput = z.object({
  id: recipientId,
  q: z.string().trim().max(200).default(''),
});
/** From the other side: who does not hold a document. */
export const unreachedInput = z.object({
  id: documentId,
  q: z.string().trim().max(200).default(''),
});
export const giveToInput = z.object({
  id: documentId,
  recipients: z
    .array(recipientId)
    .min(1, 'choose at least one person')
    .max(500, 'at most 500 people at a time'),
  terms: termsInput,
  watermark: watermarkInput,
});
export type GiveToInput = z.infer<typeof giveToInput>;

export const giveInput = z.object({
  id: recipientId,
  documents: z
    .array(documentId)
    .min(1, 'choose at least one document')
    .max(50, 'at most 50 documents at a time'),
  terms: termsInput,
  watermark: watermarkInput,
});
export type GiveInput = z.infer<typeof giveInput>;

/** What was given to how many; where a second person has to agree first, nothing yet. */
export type GiveResult = {
  readonly reference: string;
  readonly given: number;
  readonly waits: boolean;
};

/** What is not held and could be given: documents of a person, or people of a document. */
export type Lacking = {
  readonly rows: readonly {
    readonly id: string;
    readonly name: string;
    readonly detail: string;
    /** How it ended, where it was held once. */ readonly once: 'revoked' | 'expired' | null;
  }[];
  readonly total: number;
  readonly terms: readonly SavedTermsRow[];
  /** What is given where nobody chooses. */
  readonly begin: SavedTerms;
  readonly now: number;
};
