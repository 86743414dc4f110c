import type { Language } from '@/core/base/languages';

/** What recipients are asked to accept, by language; none: nothing is asked. */
export type NoticeTexts = Partial<Readonly<Record<Language, string>>>;

/** A wording of the notice; `version` counts from 1, 0: there was none yet. */
export type ReaderNotice = { readonly version: number; readonly texts: NoticeTexts };
