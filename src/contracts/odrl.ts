import { z } from 'zod';
import { dispatchId } from '@/contracts/dispatch';
import { LARGEST_ODRL } from '@/core/odrl/largest';
import type { Json, Unknown } from '@/core/odrl/report';
import type { Conditions } from '@/core/policy/conditions';
import type { Right } from '@/core/policy/rights';

const text = z.string().max(LARGEST_ODRL, 'this file is too large to import at once: make it two');
export const importTermsInput = z.object({ text });
export const dispatchOdrlInput = z.object({ id: dispatchId });
/** `subject`: what the dispatches are called by which new access is given. */
export const importGrantsInput = z.object({
  text,
  subject: z.string().trim().min(1, 'the subject is missing').max(160),
});

/** Terms as they stand in such a document: an end of their own, or so many days from a dispatch on. */
export type StatedTerms = {
  readonly rights: readonly Right[];
  readonly prints: number | null;
  readonly conditions?: Conditions | null | undefined;
  readonly end:
    | { readonly days: number | null }
    | { readonly from: number | null; readonly until: number | null };
};

/** What one policy of a document would come to here. */
export type Brought = {
  readonly name: string;
  /** `stopped`: something in it is not understood or not possible, and it is left out. */
  readonly state: 'new' | 'changed' | 'revoked' | 'same' | 'stopped';
  readonly terms: StatedTerms | null;
  /** What they take the place of. */
  readonly before: StatedTerms | null;
  readonly unknown: readonly Unknown[];
};
/** How many policies were taken; of grants, how many wait for a second person. */
export type Imported = { readonly taken: number; readonly waiting?: number };
export type OdrlDocument = { readonly name: string; readonly document: Json };
