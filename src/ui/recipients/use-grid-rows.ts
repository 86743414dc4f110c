'use client';

import { useMemo } from 'react';
import type { Row } from '@/core/compose/sheet';
import type { Terms } from '@/core/policy/rights';
import type { GridRow } from '@/ui/recipients/grid-view';
import type { Known } from '@/ui/recipients/use-facts';
import type { WorkedSheet } from '@/ui/recipients/use-sheet';

/**
 * Rows with their terms and what is known of each. One that did not change is the very same object
 * as before, so that it is not drawn again.
 *
 * @param instead terms that hold for all, whatever was set; `null`: each has its own
 */
export function useGridRows(
  { sheet: { rows }, termsOf }: Pick<WorkedSheet, 'sheet' | 'termsOf'>,
  factsOf: (key: string) => Known | undefined,
  instead: Terms | null,
): readonly GridRow[] {
  const made = useMemo(() => remembered(termsOf, factsOf, instead), [termsOf, factsOf, instead]);
  return useMemo(() => rows.map(made), [rows, made]);
}

function remembered(
  termsOf: (row: Row) => Terms,
  factsOf: (key: string) => Known | undefined,
  instead: Terms | null,
): (row: Row) => GridRow {
  const made = new WeakMap<Row, GridRow>();
  return (row) => {
    const known = factsOf(row.key);
    const found = made.get(row);
    if (found !== undefined && found.known === known) return found;
    const each = { row, terms: instead ?? termsOf(row), known };
    made.set(row, each);
    return each;
  };
}
