import { z } from 'zod';
import { dispatchId } from '@/contracts/dispatch';
import type { Json, Unknown } from '@/core/odrl/report';

/** Characters of a document that is brought in: far more than any list of terms has. */
const LARGEST = 1_000_000;

export const bringTermsInput = z.object({ text: z.string().max(LARGEST, 'this file is larger than any list of terms') });
export const dispatchOdrlInput = z.object({ id: dispatchId });

/** What one policy of a document would come to here. */
export type BroughtTerms = {
  readonly name: string;
  /** `stopped`: something in it is not understood or not offered, and it is left out. */
  readonly state: 'new' | 'changed' | 'same' | 'stopped';
  readonly words: string;
  readonly unknown: readonly Unknown[];
};
export type OdrlDocument = { readonly name: string; readonly document: Json };
