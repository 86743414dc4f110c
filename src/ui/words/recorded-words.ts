import type { Language } from '@/core/base/languages';

/** What the ledger holds of a reader, read on from “Recorded about you: ”; the same wherever they are told. */
export const recordedWords: Readonly<Record<Language, string>> = {
  en:
    'when you open what and from which IP address, the place that it suggests, this browser, ' +
    'what was refused, the pages and text shown, what you copy, print, keep and pass on, and ' +
    'what you write to the sender.',
};
