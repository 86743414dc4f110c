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
  read: 'See the pages. Held by the server: only marked pictures of pages are sent.',
  copy: 'Select and copy text. Without it the server sends no text at all.',
  print: 'Make a marked print rendition. Counted; whether paper came out cannot be known.',
  keep: 'Download the document in the clear. What was kept is beyond reach.',
  'pass-on':
    'Give the same, or less, to further people, as far as is set below. It ends with theirs.',
};

/** `read and print`, `read, copy text and print`. */
export function verbList(rights: readonly Right[]): string {
  return listed(rights.map((right) => verbs[right]));
}
