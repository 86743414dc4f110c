import { z } from 'zod';
import { isId, type MarkingId } from '@/core/base/ids';

export const markingId = z.custom<MarkingId>(
  (value) => typeof value === 'string' && isId('marking', value),
  'no such marking',
);
export const putMarkingInput = z.object({
  id: markingId.nullable(),
  name: z.string().trim().min(1, 'the marking needs a name').max(60),
  meaning: z.string().trim().max(300),
  /** Whether titles of what bears it stay out of mail and of cover pages; absent: as before. */
  hidesTitles: z.boolean().optional(),
  /** What is said in mail that brings what bears it; absent: as before. */
  mailWords: z.string().trim().max(1_000).optional(),
  up: z.boolean().optional(),
});
export const markingInput = z.object({ id: markingId });

export type MarkingRow = {
  readonly id: MarkingId;
  readonly name: string;
  readonly meaning: string;
  readonly hidesTitles: boolean;
  readonly mailWords: string;
  readonly documents: number;
};
