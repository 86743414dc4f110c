import Database from 'libsql';

type Connection = Database.Database;
type Statement = ReturnType<Connection['prepare']>;

/** Statements that each connection keeps, those used last. */
const KEPT = 400;
/**
 * What only reads or changes rows is the same however often it is run, and so is what says whether
 * somebody else wrote; another pragma or a new table is not.
 */
const KEEPABLE =
  /^\s*(select|insert|update|delete|with|begin|commit|rollback|savepoint|release|pragma data_version)\b/i;

/** The framework loads modules more than once; the driver's class is there once. */
const KEEPS = Symbol.for('embargo.keeps-statements');

/** What the client asks of a statement before each run is asked once. */
function askedOnce(statement: Statement): Statement {
  const columns = statement.columns();
  const rows = columns.length > 0 ? statement.raw(true) : null;
  const noRows = new TypeError('This statement returns no rows.');
  statement.safeIntegers(true);
  return Object.assign(statement, {
    columns: () => columns,
    safeIntegers: () => statement,
    raw: () => {
      if (rows === null) throw noRows;
      return statement;
    },
  });
}

/** The statements of one connection. */
function createKept(prepare: (sql: string) => Statement): (sql: string) => Statement {
  const kept = new Map<string, Statement>();
  return (sql) => {
    if (!KEEPABLE.test(sql)) return prepare(sql);
    const statement = kept.get(sql) ?? askedOnce(prepare(sql));
    // Put at the end again: the first is the one that was used longest ago.
    kept.delete(sql);
    kept.set(sql, statement);
    const [oldest] = kept.keys();
    if (kept.size > KEPT && oldest !== undefined) kept.delete(oldest);
    return statement;
  };
}

/**
 * Has every connection of this process keep what it prepared: the client prepares each statement
 * anew, which takes longer than most of them run.
 */
export function keepStatements(): void {
  const driver = Database.prototype as Connection & { [KEEPS]?: true };
  if (driver[KEEPS] === true) return;
  driver[KEEPS] = true;
  const ofConnection = new WeakMap<Connection, (sql: string) => Statement>();
  const prepare = Reflect.get(driver, 'prepare');
  Reflect.set(driver, 'prepare', function prepareOnce(this: Connection, sql: string): Statement {
    const known =
      ofConnection.get(this) ?? createKept((text) => Reflect.apply(prepare, this, [text]));
    ofConnection.set(this, known);
    return known(sql);
  });
}
