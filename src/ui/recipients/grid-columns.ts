import { OFFERED_RIGHTS } from '@/core/policy/rights';
import { rightNames } from '@/core/policy/right-names';
import type { GridColumn } from '@/ui/recipients/grid-view';
import { rightHints } from '@/ui/words/rights-words';

const AFTER_RIGHTS: readonly GridColumn[] = ['ends', 'opens', 'conditions', 'documents'];

/** The columns of a dispatch; what leaves in the clear has no terms, so only who gets what. */
export function gridColumns({
  isClear,
  documents,
}: {
  readonly isClear: boolean;
  readonly documents: number;
}): readonly GridColumn[] {
  const terms = isClear ? [] : [...OFFERED_RIGHTS, ...AFTER_RIGHTS];
  const all: readonly GridColumn[] = [
    'who',
    'organisation',
    ...(isClear ? (['documents'] as const) : terms),
  ];
  return documents > 1 ? all : all.filter((column) => column !== 'documents');
}

const OTHERS: Partial<Record<GridColumn, string>> = {
  who: 'Person',
  organisation: 'Organisation',
  ends: 'Ends',
  opens: 'Opens',
  conditions: 'Other terms',
  documents: 'Files',
};

/** What stands at the head of a column. */
export function columnName(column: GridColumn): string {
  return OTHERS[column] ?? rightNames[column as keyof typeof rightNames];
}

/** What a right means, where the pointer rests on its column. */
export function columnHint(column: GridColumn): string | undefined {
  return Object.entries(rightHints).find(([right]) => right === column)?.[1];
}
