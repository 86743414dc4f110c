/**
 * What is known of a copy on paper: it is out with somebody, it was collected or destroyed, or its
 * print failed, which gives the count back. Staff note it: nobody else can know.
 */
export const PAPER_STATES = ['out', 'collected', 'destroyed', 'failed'] as const;
export type PaperState = (typeof PAPER_STATES)[number];

/** By how much the count of prints changes when a copy comes from one state to another. */
export function countChange(was: PaperState, now: PaperState): -1 | 0 | 1 {
  if (was === now) return 0;
  if (now === 'failed') return -1;
  return was === 'failed' ? 1 : 0;
}
