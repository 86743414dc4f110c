import type { RequestState } from '@/core/policy/requests';
import type { Right } from '@/core/policy/rights';
import { verbList } from '@/ui/words/rights-words';

export const requestStateWords: Record<RequestState, string> = { waiting: 'waiting for an answer', given: 'given', 'given-in-part': 'given in part', declined: 'declined' };

/** What is asked, to be read behind “asked”: `to print`, `for more time`. */
export function askText({ right }: { readonly right: Right | null }): string {
  return right === null ? 'for more time' : `to ${verbList([right])}`;
}
