import { z } from 'zod';
import { isId, type DispatchId, type DocumentId, type RecipientId } from '@/core/base/ids';
import type { Exposure } from '@/core/policy/exposure';

function idOf<T extends string>(kind: Parameters<typeof isId>[0]) {
  return z.custom<T>((value) => typeof value === 'string' && isId(kind, value), 'no such id');
}

/** Of a document, a dispatch or a person: one of the three. */
export const stillReadableInput = z
  .object({
    document: idOf<DocumentId>('document').optional(),
    dispatch: idOf<DispatchId>('dispatch').optional(),
    person: idOf<RecipientId>('recipient').optional(),
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
