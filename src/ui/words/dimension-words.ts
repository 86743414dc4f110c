import { refusalName } from '@/core/policy/refusal-names';
import type { Dimension } from '@/core/insight/filter';
import { KINDS, type Kind } from '@/core/insight/kinds';
import { kindWords } from '@/ui/words/kind-words';

/** By what the ledger is narrowed. */
export const dimensionWords: Record<Dimension, string> = {
  document: 'document',
  version: 'version',
  recipient: 'person',
  dispatch: 'dispatch',
  actor: 'done by',
  device: 'device',
  organisation: 'organisation',
  place: 'place',
  kind: 'what',
  reason: 'reason',
  outcome: 'outcome',
};

function isKind(value: string): value is Kind {
  return KINDS.some((kind) => kind === value);
}

/** A value that has no name of its own. */
export function valueText(dimension: Dimension, value: string): string {
  if (dimension === 'kind' && isKind(value)) return kindWords[value];
  return dimension === 'reason' ? refusalName(value) : value;
}
