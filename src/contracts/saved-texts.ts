import { z } from 'zod';
import { isId, type TextId } from '@/core/base/ids';

const textId = z.custom<TextId>(
  (value) => typeof value === 'string' && isId('text', value),
  'no such text',
);
/** A message kept under a name; one of the same name is replaced. */
export const putTextInput = z.object({
  name: z.string().trim().min(1, 'the text needs a name').max(60),
  subject: z.string().trim().max(160),
  note: z.string().trim().max(4000),
});
export type PutTextInput = z.infer<typeof putTextInput>;
export const textInput = z.object({ id: textId });

export type SavedText = {
  readonly id: TextId;
  readonly name: string;
  readonly subject: string;
  readonly note: string;
  /** Who saved it last. */
  readonly changedBy: string;
};
export type SavedTexts = { readonly texts: readonly SavedText[] };
