import type { Fact } from '@/core/insight/fact';
import { number } from '@/core/insight/fact-words';
import type { Json } from '@/core/ledger/canonical';
import { PAPER_STATES, type PaperState } from '@/core/paper/paper-copy';

/** What is known of a copy on paper, in words. */
export const paperWords: Readonly<Record<PaperState, string>> = {
  out: 'out',
  collected: 'collected',
  destroyed: 'destroyed',
  failed: 'print failed, given back',
};

function wordsOf(value: Json | undefined): string {
  const state = PAPER_STATES.find((each) => each === value);
  return state === undefined ? '' : paperWords[state];
}

/** What was noted about a copy on paper. */
export function paperFacts(details: Readonly<Record<string, Json>>): Fact[] {
  return [
    { label: 'Copy', before: null, after: String(number(details['copy'])) },
    { label: 'Paper', before: wordsOf(details['was']), after: wordsOf(details['now']) },
  ];
}
