import 'server-only';
import { sql, type SQL } from 'drizzle-orm';
import type { SQLiteColumn } from 'drizzle-orm/sqlite-core';

/** The row after which a stretch goes on: what it is ordered by, and its id. */
export type LastSeen = { readonly value: string | number | null; readonly id: string };

/** How a list is put in order. */
export type Ordering = {
  readonly expression: SQL;
  readonly id: SQLiteColumn;
  /** From its end. */
  readonly down: boolean;
  /** Whether rows may lack a value; where none does, an index over the column serves the order. */
  readonly mayLack: boolean;
};

/** Rows in order, those without a value last, whichever way round; equal ones by their ids. */
export function inOrder({ expression, id, down, mayLack }: Ordering): SQL[] {
  const way = down ? sql`DESC` : sql`ASC`;
  const lacking = mayLack ? [sql`${expression} IS NULL`] : [];
  return [...lacking, sql`${expression} ${way}`, sql`${id} ${way}`];
}

/** The rows that come after one that was seen; also where rows have come or gone since. */
export function behind({ expression, id, down, mayLack }: Ordering, last: LastSeen): SQL {
  const after = down ? sql`<` : sql`>`;
  if (last.value === null) return sql`(${expression} IS NULL AND ${id} ${after} ${last.id})`;
  const further = sql`(${expression}, ${id}) ${after} (${last.value}, ${last.id})`;
  return mayLack ? sql`(${expression} IS NULL OR ${further})` : further;
}
