import 'server-only';
import { or, sql, type SQL } from 'drizzle-orm';
import type { SQLiteColumn } from 'drizzle-orm/sqlite-core';

/** Columns that hold the text anywhere, whatever its case; the text's own wildcards stand for themselves. */
export function holding(
  text: string,
  ...columns: readonly (SQLiteColumn | SQL)[]
): SQL | undefined {
  const pattern = `%${text.replaceAll(/[\\%_]/g, (character) => `\\${character}`)}%`;
  return or(...columns.map((column) => sql`${column} LIKE ${pattern} ESCAPE '\\'`));
}
