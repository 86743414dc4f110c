import { z } from 'zod';
import type { Language } from '@/core/base/languages';
import { emailAddress } from '@/contracts/address';
import { draftTerms } from '@/contracts/draft';
import { documentId } from '@/contracts/document';
import { dispatchInput } from '@/contracts/dispatch';
import { MOST_DOCUMENTS } from '@/core/compose/limits';

/** The message that one recipient would get of what is composed. */
export const previewMailInput = z
  .object(dispatchInput.shape)
  .pick({ note: true, noteInMail: true, form: true })
  .extend({
    terms: draftTerms,
    subject: z.string().trim().max(160),
    documents: z.array(documentId).max(MOST_DOCUMENTS),
    recipient: z.object({
      address: emailAddress,
      name: z.string().trim().max(120),
      organisation: z.string().trim().max(120),
    }),
  });
export type PreviewMailInput = z.infer<typeof previewMailInput>;

/** What is mailed, part by part; `note`: what the sender formatted. */
export type MailPreview = {
  readonly language: Language;
  readonly subject: string;
  readonly parts: readonly { readonly text: string; readonly note: boolean }[];
};
