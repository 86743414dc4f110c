import type { StateThen } from '@/contracts/access-then';
import { refusedWords } from '@/ui/why/why-words';
import { rightsLine } from '@/core/policy/rights-line';

/** What somebody could do: `Read · Print 2`, or why they could not open it. */
export function stateWords(state: StateThen): string {
  return state.opens ? rightsLine(state.rights, state.printsLeft) : refusedWords[state.reason];
}

/** Whether two states come to the same. */
export function isSameState(a: StateThen, b: StateThen): boolean {
  if (!a.opens || !b.opens) return a.opens === b.opens && stateWords(a) === stateWords(b);
  return stateWords(a) === stateWords(b) && a.until === b.until;
}
