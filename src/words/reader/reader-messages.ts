import type { InAnyWords } from '@/words/in-any-words';
import type { en } from '@/words/reader/en';

/** What a catalogue of the reader has to say: every message there is in English. */
export type ReaderMessages = InAnyWords<typeof en>;
