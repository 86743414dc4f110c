import { rightNames } from '@/core/policy/right-names';
import { RIGHTS, type Right } from '@/core/policy/rights';

/** The rights of a person in a line: `Read · Print 2`. */
export function rightsLine(rights: readonly Right[], prints: number | null): string {
  return RIGHTS.filter((right) => rights.includes(right))
    .map((right) =>
      right === 'print' && prints !== null
        ? `${rightNames.print} ${String(prints)}`
        : rightNames[right],
    )
    .join(' · ');
}
