import { isMessage, type Ask } from '@/core/policy/requests';
import { verbList } from '@/ui/words/rights-words';

/** What somebody wants, to be read behind their name: `asks to print`, `asks for more time`, `writes`. */
export function askText(ask: Ask): string {
  if (isMessage(ask)) return 'writes';
  return `asks ${ask.right === null ? 'for more time' : `to ${verbList([ask.right])}`}`;
}
