import { z } from 'zod';
import { documentId } from '@/contracts/document';
import { isId, type PaperId, type RecipientId } from '@/core/base/ids';
import { PAPER_STATES, type PaperState } from '@/core/paper/paper-copy';

const paperId = z.custom<PaperId>(
  (value) => typeof value === 'string' && isId('paper', value),
  'no such copy',
);

/** The copies on paper of one document. */
export const paperInput = z.object({ id: documentId });
/** What became of some of them. */
export const notePaperInput = z.object({
  id: documentId,
  copies: z.array(paperId).min(1).max(500),
  state: z.enum(PAPER_STATES),
  note: z.string().trim().max(300).default(''),
});
export type NotePaperInput = z.output<typeof notePaperInput>;

/** One print rendition, and what is known of the paper. */
export type PaperCopy = {
  readonly id: PaperId;
  /** Which copy of its grant it is, as it says on the paper. */
  readonly number: number;
  readonly recipientId: RecipientId;
  readonly name: string;
  readonly address: string;
  readonly dispatchReference: string;
  readonly version: number;
  readonly from: number;
  readonly to: number;
  readonly madeAt: number;
  readonly state: PaperState;
  readonly note: string;
  /** Null: nobody noted anything, or the product itself did. */
  readonly notedBy: string | null;
  readonly notedAt: number | null;
};
export type PaperRegister = { readonly copies: readonly PaperCopy[] };
