import type { Right, Terms } from '@/core/policy/rights';
import { withNeeds } from '@/core/policy/rights';

/** Where a request stands: it waits for staff, for the asker to answer a question, or is over. */
export type RequestState =
  'waiting' | 'asked-back' | 'given' | 'given-in-part' | 'declined' | 'answered';

/** The states in which a request can still be answered. */
export const OPEN_STATES = ['waiting', 'asked-back'] as const satisfies readonly RequestState[];
type OpenState = (typeof OPEN_STATES)[number];

/** What was said about a request before its answer. `at` in ms since the epoch. */
export type Turn = { readonly by: 'staff' | 'asker'; readonly text: string; readonly at: number };

/** Questions and replies about one request: then it is answered, or done by telephone. */
export const MOST_TURNS = 20;

export function isOpen(state: RequestState): state is OpenState {
  return OPEN_STATES.some((open) => open === state);
}

/**
 * What a recipient asks for: a right, more time, or both; with neither it is a message. `until` in
 * ms since the epoch.
 */
export type Ask = { readonly right: Right | null; readonly until: number | null };

/** What is given in answer. `prints`: that many renditions, where printing is given; `null`: no limit. */
export type Answer = {
  readonly right: Right | null;
  readonly until: number | null;
  readonly prints: number | null;
};

/** Whether somebody writes without asking for anything that could be given. */
export function isMessage({ right, until }: Ask): boolean {
  return right === null && until === null;
}

/** Whether an answer gives all that was asked for, some of it, or nothing; to a message it is an answer and no more. */
export function stateAfter(ask: Ask, answer: Answer): Exclude<RequestState, OpenState> {
  if (isMessage(ask)) return 'answered';
  const rightGiven = ask.right === null || answer.right === ask.right;
  const timeGiven = ask.until === null || (answer.until !== null && answer.until >= ask.until);
  const counted = ask.right === 'print' && answer.prints !== null;
  if (rightGiven && timeGiven && !counted) return 'given';
  return answer.right === null && answer.until === null ? 'declined' : 'given-in-part';
}

/**
 * The terms of the grant that answers a request: those the person has, with what is given added.
 * A right given to somebody who lacks what it rests on brings that along.
 */
export function answeredTerms(terms: Terms, answer: Answer): Terms {
  const rights = new Set<Right>([
    ...terms.rights,
    ...(answer.right === null ? [] : [answer.right]),
  ]);
  let prints =
    answer.right === 'print' && !terms.rights.includes('print') ? answer.prints : terms.prints;
  if (answer.right === 'print' && terms.rights.includes('print') && terms.prints !== null)
    prints = answer.prints === null ? null : terms.prints + answer.prints;
  return withNeeds({ ...terms, rights: [...rights], prints, until: answer.until ?? terms.until });
}
