import { spanText } from '@/core/policy/condition-lines';
import type { Terms } from '@/core/policy/rights';

/** How long it may still be read on people's own machines once all access is cut off, in ms. */
export function readOn(all: readonly Terms[]): number {
  return Math.max(0, ...all.map(({ conditions }) => conditions?.offline ?? 0));
}

/** `at once`, `within 2 days`. */
export function shutOutText(all: readonly Terms[]): string {
  const longest = readOn(all);
  return longest === 0 ? 'at once' : `within ${spanText(longest)}`;
}
