import { listed } from '@/core/base/listed';
import type { OFFERED_RIGHTS, Right } from '@/core/policy/rights';

/** What a person may do: `You may read and print`. */
const verbs: Record<Right, string> = {
  read: 'read',
  comment: 'comment',
  copy: 'copy text',
  print: 'print',
  revise: 'send a revised file',
  keep: 'keep a copy',
  'pass-on': 'pass it on',
};

export const rightHints: Record<(typeof OFFERED_RIGHTS)[number], string> = {
  read: 'See the pages. Held by the server: it sends only marked pictures of pages.',
  comment:
    'Put remarks on pages. They never change the document, and stay with you when access ends.',
  copy: 'Select and copy text. Without it the server sends no text at all.',
  print: 'Make a marked copy to print. It is counted; nobody can know whether paper came out.',
  revise:
    'Send a changed file back. It is kept beside the document, which you then compare and accept or decline.',
  keep: 'Download the document in the clear. A kept copy cannot be revoked.',
  'pass-on':
    'Give the same or less to more people, within the limits below. It ends when theirs ends.',
};

/** `read and print`, `read, copy text and print`. */
export function verbList(rights: readonly Right[]): string {
  return listed(rights.map((right) => verbs[right]));
}
