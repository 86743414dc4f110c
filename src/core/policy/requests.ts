import type { Right, Terms } from '@/core/policy/rights';
import { brokenDependencies } from '@/core/policy/rights';

/** Where a request stands. */
export type RequestState = 'waiting' | 'given' | 'given-in-part' | 'declined' | 'answered';

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
export function stateAfter(ask: Ask, answer: Answer): Exclude<RequestState, 'waiting'> {
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
  for (const { needs } of brokenDependencies({ ...terms, rights: [...rights], prints })) {
    if (needs === 'unlimited-print') {
      rights.add('print');
      prints = null;
    } else rights.add(needs);
  }
  return { ...terms, rights: [...rights], prints, until: answer.until ?? terms.until };
}
