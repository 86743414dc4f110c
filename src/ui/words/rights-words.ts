import { listed } from '@/core/base/listed';
import type { OFFERED_RIGHTS, Right } from '@/core/policy/rights';
import { en } from '@/words/reader/en';

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
  return listed(rights.map((right) => en.rights.verbs[right]));
}
