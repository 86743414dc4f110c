import { isMessage, type Ask, type RequestState } from '@/core/policy/requests';
import { verbList } from '@/ui/words/rights-words';

export const requestStateWords: Record<RequestState, string> = {
  waiting: 'waiting for an answer',
  'asked-back': 'waiting for a reply',
  given: 'given',
  'given-in-part': 'given in part',
  declined: 'declined',
  answered: 'answered',
};

/** What somebody wants, to be read behind their name: `asks to print`, `asks for more time`, `writes`. */
export function askText(ask: Ask, past = false): string {
  if (isMessage(ask)) return past ? 'wrote' : 'writes';
  return `${past ? 'asked' : 'asks'} ${ask.right === null ? 'for more time' : `to ${verbList([ask.right])}`}`;
}
