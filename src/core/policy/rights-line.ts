import { RIGHTS, type Right } from '@/core/policy/rights';

const doing: Record<Right, string> = {
  read: 'reads',
  comment: 'comments',
  copy: 'copies',
  print: 'prints',
  revise: 'revises',
  keep: 'keeps',
  'pass-on': 'passes on',
};

/** What a person with these rights does: `reads · prints 2`. */
export function rightsLine(rights: readonly Right[], prints: number | null): string {
  return RIGHTS.filter((right) => rights.includes(right))
    .map((right) =>
      right === 'print' && prints !== null ? `prints ${String(prints)}` : doing[right],
    )
    .join(' · ');
}
