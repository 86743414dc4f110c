import { z } from 'zod';
import { LANGUAGES } from '@/core/base/languages';
import type { NoticeTexts, ReaderNotice } from '@/core/message/reader-notice';

const text = z.string().trim().max(4_000);

/** What recipients are asked to accept, by language; with none, nothing is asked. */
const noticeTexts = z
  .partialRecord(z.enum(LANGUAGES), text)
  .transform((texts): NoticeTexts =>
    Object.fromEntries(Object.entries(texts).filter(([, each]) => each !== '')),
  );
export const putNoticeInput = z.object({ texts: noticeTexts });
export type PutNoticeInput = z.output<typeof putNoticeInput>;

/** In which wording somebody accepts it. */
export const acceptNoticeInput = z.object({
  version: z.number().int().min(1),
  language: z.enum(LANGUAGES),
});
export type AcceptNoticeInput = z.infer<typeof acceptNoticeInput>;

/** The notice as a recipient is shown it. */
export type NoticeAsked = ReaderNotice & { readonly organisation: string };

/** The notice as staff see it. */
export type NoticeView = ReaderNotice & {
  /** By how many people this wording was accepted. */
  readonly accepted: number;
};
