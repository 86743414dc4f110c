import { createAdapterFactory } from 'better-auth/adapters';
import { and, eq, gt, gte, inArray, lt, lte, ne, or, type SQL } from 'drizzle-orm';
import type { SQLiteColumn, SQLiteTable } from 'drizzle-orm/sqlite-core';
import type { Database, Transaction } from '@/server/db/database';
import { staff, staffAccounts, staffSessions, staffVerifications } from '@/server/db/schema/staff';

type Row = Record<string, unknown>;
type Clause = {
  readonly field: string;
  readonly value: unknown;
  readonly operator?: string;
  readonly connector?: 'AND' | 'OR';
};

const tables: Record<string, SQLiteTable> = {
  user: staff,
  session: staffSessions,
  account: staffAccounts,
  verification: staffVerifications,
};

function tableOf(model: string): SQLiteTable & Record<string, SQLiteColumn> {
  const table = tables[model];
  if (table === undefined) throw new Error(`No table for ${model}.`);
  return table as SQLiteTable & Record<string, SQLiteColumn>;
}

function condition(column: SQLiteColumn, { operator = 'eq', value }: Clause): SQL {
  switch (operator) {
    case 'eq':
      return eq(column, value);
    case 'ne':
      return ne(column, value);
    case 'lt':
      return lt(column, value);
    case 'lte':
      return lte(column, value);
    case 'gt':
      return gt(column, value);
    case 'gte':
      return gte(column, value);
    case 'in':
      return inArray(column, value as unknown[]);
    default:
      throw new Error(`The operator ${operator} is not used here.`);
  }
}

/** A condition always results: an update or delete of everything is not expressible. */
function whereOf(model: string, clauses: readonly Clause[]): SQL {
  const table = tableOf(model);
  const parts = clauses.map((clause) => {
    const column = table[clause.field];
    if (column === undefined) throw new Error(`No column ${clause.field} in ${model}.`);
    return condition(column, clause);
  });
  const joined = clauses.some((clause) => clause.connector === 'OR') ? or(...parts) : and(...parts);
  if (joined === undefined) throw new Error('A condition is needed.');
  return joined;
}

/**
 * Lets the sign-in library store its rows through the write queue, with whatever `onCreate` adds
 * to the same transaction.
 */
export function authAdapter(
  db: Database,
  onCreate: (tx: Transaction, model: string, row: Row) => Promise<void>,
): ReturnType<typeof createAdapterFactory> {
  const rows = async (model: string, clauses: readonly Clause[], limit = 100): Promise<Row[]> => {
    const query = db.read.select().from(tableOf(model));
    return clauses.length === 0
      ? query.limit(limit)
      : query.where(whereOf(model, clauses)).limit(limit);
  };
  const update = (model: string, where: readonly Clause[], values: Row): Promise<Row[]> =>
    db.write((tx) =>
      tx.update(tableOf(model)).set(values).where(whereOf(model, where)).returning(),
    );
  const remove = (model: string, where: readonly Clause[]): Promise<Row[]> =>
    db.write((tx) => tx.delete(tableOf(model)).where(whereOf(model, where)).returning());

  return createAdapterFactory({
    config: {
      adapterId: 'embargo',
      supportsDates: true,
      supportsBooleans: true,
      supportsJSON: false,
    },
    adapter: () => ({
      create: async ({ model, data }) =>
        db.write(async (tx) => {
          const [row] = await tx.insert(tableOf(model)).values(data).returning();
          await onCreate(tx, model, row as Row);
          return row as typeof data;
        }),
      findOne: async ({ model, where }) => ((await rows(model, where, 1)).at(0) ?? null) as never,
      findMany: async ({ model, where, limit }) => (await rows(model, where ?? [], limit)) as never,
      count: async ({ model, where }) =>
        db.read.$count(
          tableOf(model),
          where === undefined || where.length === 0 ? undefined : whereOf(model, where),
        ),
      update: async ({ model, where, update: values }) =>
        ((await update(model, where, values as Row)).at(0) ?? null) as never,
      updateMany: async ({ model, where, update: values }) =>
        (await update(model, where, values)).length,
      delete: async ({ model, where }) => {
        await remove(model, where);
      },
      deleteMany: async ({ model, where }) => (await remove(model, where)).length,
    }),
  });
}
