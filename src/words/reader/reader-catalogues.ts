import type { Language } from '@/core/base/languages';
import { de } from '@/words/reader/de';
import { en } from '@/words/reader/en';
import { es } from '@/words/reader/es';
import { fr } from '@/words/reader/fr';
import { ja } from '@/words/reader/ja';
import type { ReaderMessages } from '@/words/reader/reader-messages';

/** The reader's words in every language. The server picks one: the others stay off the wire. */
export const readerCatalogues: Readonly<Record<Language, ReaderMessages>> = { en, de, fr, es, ja };
