import type { Right } from '@/core/policy/rights';

/** What each right is called, as a column heading or in a list. */
export const rightNames: Record<Right, string> = {
  read: 'Read',
  comment: 'Comment',
  copy: 'Copy text',
  print: 'Print',
  revise: 'Revise',
  keep: 'Keep a copy',
  'pass-on': 'Pass on',
};
