import { counted } from '@/core/base/counted';
import { en } from '@/words/reader/en';

/** How many pages a document has; of one that has none, what can be done with it. */
export function pagesText(pages: number): string {
  return pages === 0 ? 'no pages, only kept' : counted(pages, 'page');
}

/** Why nothing of a file is shown. */
export const NOT_SHOWN = en.reading.notShown;
