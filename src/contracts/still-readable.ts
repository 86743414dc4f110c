import { z } from 'zod';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import { recipientId } from '@/contracts/access';
import { dispatchId } from '@/contracts/dispatch';
import { documentId } from '@/contracts/document';
import type { Exposure } from '@/core/policy/exposure';

/** Of a document, a dispatch or a person: one of the three. */
export const stillReadableInput = z
  .object({
    document: documentId.optional(),
    dispatch: dispatchId.optional(),
    person: recipientId.optional(),
  })
  .refine(
    ({ document, dispatch, person }) =>
      [document, dispatch, person].filter((id) => id !== undefined).length === 1,
    'name a document, a dispatch or a person',
  );
export type StillReadableInput = z.infer<typeof stillReadableInput>;

type Whose = {
  readonly recipient: RecipientId;
  readonly address: string;
  readonly name: string;
  readonly document: DocumentId;
  readonly title: string;
  readonly reference: string;
};
/** Who may read without asking, and apart from them who has held a key at all. */
export type StillReadable = {
  /** Licences that run on people's own machines, those that end last first. */
  readonly running: readonly (Whose & { readonly device: string; readonly until: number })[];
  /** How many (document, person) pairs could still be read, from each hour on, were all cut off now. */
  readonly curve: Exposure['curve'];
  /** Everybody whose machine was given a key: they could have kept it, whatever ends. */
  readonly held: readonly (Whose & { readonly lastGivenAt: number })[];
};
