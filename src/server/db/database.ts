import { AsyncLocalStorage } from 'node:async_hooks';
import { chmodSync, closeSync, existsSync, mkdirSync, openSync } from 'node:fs';
import path from 'node:path';
import { createClient, type Client } from '@libsql/client/sqlite3';
import { sql } from 'drizzle-orm';
import type { LibSQLDatabase } from 'drizzle-orm/libsql';
import { drizzle } from 'drizzle-orm/libsql/sqlite3';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { AlreadyDone, type Act } from '@/core/base/act';
import { isDiskFull } from '@/core/base/disk-full';
import { SECOND } from '@/core/base/time';
import { keepStatements } from '@/server/db/kept-statements';
import type { BrokenSeal, Seals } from '@/server/db/seals';
import { requestsDone } from '@/server/db/schema/organisation';
import { tables } from '@/server/db/schema/tables';

export type Reading = LibSQLDatabase<typeof tables>;
/** An open write transaction. Only SQL may be awaited inside. */
export type Transaction = Parameters<Parameters<Reading['transaction']>[0]>[0];

export type Database = {
  readonly read: Reading;
  /** Runs `job` in a write transaction. Waiting jobs are committed together; one that fails is undone alone. */
  readonly write: <T>(job: (tx: Transaction) => Promise<T>) => Promise<T>;
  /**
   * The same for a job that changes nothing by which access is decided, such as that mail was handed
   * over: what was read before stands after it.
   */
  readonly writeAside: <T>(job: (tx: Transaction) => Promise<T>) => Promise<T>;
  /** The same again for what many do at once, such as that a page was shown: it waits a moment for others. */
  readonly writeTogether: <T>(job: (tx: Transaction) => Promise<T>) => Promise<T>;
  /**
   * A number that is another one once anything was changed by which access is decided. Inside a job
   * of the write queue it is exact, whoever made the change: nobody else can write meanwhile. Outside
   * it, what another process wrote shows with the next job.
   */
  readonly generation: () => number;
  /**
   * Runs `work` as one act: the first of its transactions that is committed notes that it was done,
   * so that the same request come again, or come twice at once, does nothing.
   *
   * @throws AlreadyDone where it was done before
   */
  readonly once: <T>(act: Act, work: () => Promise<T>) => Promise<T>;
  /** Seals what every transaction changes from now on; told of rows that are not this product's own. */
  readonly sealWith: (
    seals: Seals,
    onForeign: (rows: readonly BrokenSeal[]) => void,
  ) => Promise<void>;
  /** Moves everything from the write-ahead log into the file and empties the log. */
  readonly checkpoint: () => Promise<void>;
  /**
   * Writes the whole database, as it stands at one moment, to a new file without what was deleted.
   * Holds up this process meanwhile.
   */
  readonly copyTo: (file: string) => Promise<void>;
  readonly close: () => Promise<void>;
};

/** Whether access may be decided otherwise after a job, and whether it waits to share a commit. */
type Manner = { readonly decides: boolean; readonly waits: boolean };

type Waiting = Manner & {
  readonly job: (tx: Transaction) => Promise<unknown>;
  readonly settle: (outcome: Outcome) => void;
};
type Outcome =
  { readonly ok: true; readonly value: unknown } | { readonly ok: false; readonly error: unknown };

/** What the jobs of one batch have carried so far towards its commit, by name. */
type Batch = {
  carried: ReadonlyMap<
    string,
    { readonly value: unknown; readonly flush: (tx: Transaction) => Promise<void> }
  >;
};

/**
 * A transaction bears its batch itself. A map in this module would not do: the framework loads
 * modules more than once, and the one who opened the database may hold another copy than its users.
 */
const BATCH_OF = Symbol.for('embargo.batch');
type InBatch = Transaction & { [BATCH_OF]?: Batch };

function batchOf(tx: InBatch): Batch {
  const batch = tx[BATCH_OF];
  if (batch === undefined) throw new Error('Only inside a job of the write queue.');
  return batch;
}

/** A value that the jobs of a batch build up one after another and that is written once, just before the commit. */
export type Carried<T> = {
  readonly get: (tx: Transaction) => T | undefined;
  readonly set: (tx: Transaction, value: T) => void;
};

/**
 * Declares such a value under a name of its own. It must be replaced, never changed in place: when
 * a job fails, its part is undone by going back to the value from before it.
 */
export function carriedToCommit<T>(
  name: string,
  flush: (tx: Transaction, value: T) => Promise<void>,
): Carried<T> {
  return {
    get: (tx) => batchOf(tx).carried.get(name)?.value as T | undefined,
    set: (tx, value) => {
      const batch = batchOf(tx);
      batch.carried = new Map(batch.carried).set(name, {
        value,
        flush: (outer) => flush(outer, value),
      });
    },
  };
}

/**
 * How long after a commit the next is put off, in ms for each who shared it and at most, where all
 * that wait for it may wait: the more read at once the more share one, and a reader alone waits for
 * none.
 */
const GATHERED = { each: 30, most: 240 };
/** Most jobs committed together: bounds what a power cut can undo and how long readers wait. */
const BATCH = 128;
const PRIVATE = 0o600;
const BUSY_TIMEOUT = 10 * SECOND;
/** Pages kept in memory by each connection: a large change must not spill to disk before it is committed. */
const CACHE_KIB = 32 * 1024;

async function connect(url: string, connections: number): Promise<Client> {
  keepStatements();
  const client = createClient({ url, concurrency: connections, timeout: BUSY_TIMEOUT });
  // WAL lets readers go on while one writes; deleted keys are overwritten, not only unlinked.
  for (const pragma of [
    'journal_mode = WAL',
    'synchronous = FULL',
    'foreign_keys = ON',
    'secure_delete = ON',
    'journal_size_limit = 67108864',
    `cache_size = -${String(CACHE_KIB)}`,
    'wal_autocheckpoint = 8000',
  ])
    await client.execute(`PRAGMA ${pragma}`);
  return client;
}

/** The files beside it take the mode of the database's own. */
function keepPrivate(file: string): void {
  mkdirSync(path.dirname(file), { recursive: true, mode: 0o700 });
  closeSync(openSync(file, 'a', PRIVATE));
  // The comment within is for the build: it is not to list the whole project beside each route.
  for (const each of [file, `${file}-wal`, `${file}-shm`])
    if (existsSync(/* turbopackIgnore: true */ each)) chmodSync(each, PRIVATE);
}

/**
 * Opens the database file, applying migrations.
 *
 * All writes of a process go through one queue and one connection: two overlapping write
 * transactions in a process would end in SQLITE_BUSY and hold up the event loop while they wait.
 *
 * @param makeRoom is called where the disk is full; where it could make some, what failed is tried once more
 */
export async function openDatabase(
  url: string,
  makeRoom: () => boolean = () => false,
  migrationsFolder = path.resolve('src/server/db/migrations'),
): Promise<Database> {
  keepPrivate(url.replace(/^file:/, ''));
  const writer = await connect(url, 1);
  const writing = drizzle(writer, { schema: tables, casing: 'snake_case' });
  await migrate(writing, { migrationsFolder });
  const reader = await connect(url, 4);
  const queue = createWriteQueue(writing, makeRoom);
  return {
    read: drizzle(reader, { schema: tables, casing: 'snake_case' }),
    write: queue.write,
    writeAside: queue.writeAside,
    writeTogether: queue.writeTogether,
    generation: queue.generation,
    once: queue.once,
    sealWith: queue.sealWith,
    checkpoint: async () => {
      await writer.execute('PRAGMA wal_checkpoint(TRUNCATE)');
    },
    copyTo: async (file) => {
      await queue.idle();
      await writer.execute({ sql: 'VACUUM INTO ?', args: [file] });
    },
    close: async () => {
      await queue.idle();
      writer.close();
      reader.close();
    },
  };
}

/** A connection of its own that only reads, for a thread beside the server's. */
export function openForReading(url: string): {
  readonly read: Reading;
  readonly close: () => void;
} {
  const client = createClient({ url });
  return {
    read: drizzle(client, { schema: tables, casing: 'snake_case' }),
    close: () => {
      client.close();
    },
  };
}

/** Reads one state of the database throughout, whatever is written meanwhile, on a connection of its own. */
export async function readSnapshot<T>(url: string, work: (db: Reading) => Promise<T>): Promise<T> {
  const client = createClient({ url });
  // The mapper's own transactions take the lock of a writer; this one only reads.
  const snapshot = await client.transaction('deferred');
  try {
    return await work(
      drizzle(snapshot as unknown as Client, { schema: tables, casing: 'snake_case' }),
    );
  } finally {
    snapshot.close();
    client.close();
  }
}

type Sealing = { readonly seals: Seals; readonly onForeign: (rows: readonly BrokenSeal[]) => void };

function createWriteQueue(
  db: Reading,
  makeRoom: () => boolean,
): Pick<Database, 'write' | 'writeAside' | 'writeTogether' | 'generation' | 'once' | 'sealWith'> & {
  readonly idle: () => Promise<void>;
} {
  const waiting: Waiting[] = [];
  let running: Promise<void> | null = null;
  let sealing: Sealing | null = null;
  let generation = 0;
  let foreign: number | null = null;

  /** The writer's own commits leave this number as it is; those of anybody else do not. */
  const lookForForeignChanges = async (tx: Transaction): Promise<void> => {
    const [row] = await tx.all<{ data_version: number }>(sql`PRAGMA data_version`);
    const seen = row?.data_version ?? null;
    if (seen !== foreign) generation++;
    foreign = seen;
  };

  const runBatch = async (jobs: readonly Waiting[], mayMakeRoom = true): Promise<void> => {
    const outcomes: Outcome[] = [];
    let unsealed: readonly BrokenSeal[] = [];
    let full: unknown = null;
    try {
      await db.transaction(
        async (tx) => {
          const batch: Batch = { carried: new Map() };
          await lookForForeignChanges(tx);
          await sealing?.seals.watch(tx);
          for (const { job, decides } of jobs) {
            if (decides) generation++;
            const outcome = await runJob(tx, batch, job);
            // The database has undone the whole transaction by itself.
            if (!outcome.ok && isDiskFull(outcome.error)) {
              full = outcome.error;
              throw full;
            }
            outcomes.push(outcome);
          }
          for (const { flush } of batch.carried.values()) await flush(tx);
          if (sealing !== null) unsealed = await sealing.seals.seal(tx);
        },
        { behavior: 'immediate' },
      );
      // What was read between a change and its commit was read as it stood before.
      if (jobs.some(({ decides }) => decides)) generation++;
      if (unsealed.length > 0) sealing?.onForeign(unsealed);
      jobs.forEach(({ settle }, i) => {
        settle(outcomes[i] ?? { ok: false, error: new Error('not run') });
      });
    } catch (error) {
      const cause = full ?? error;
      if (mayMakeRoom && isDiskFull(cause) && makeRoom()) {
        await runBatch(jobs, false);
        return;
      }
      for (const { settle } of jobs) settle({ ok: false, error: cause });
    }
  };

  const drain = async (): Promise<void> => {
    // Jobs asked for in the same turn join the same batch.
    await Promise.resolve();
    while (waiting.length > 0) {
      await gather();
      const batch = waiting.splice(0, BATCH);
      await runBatch(batch);
      ended = performance.now();
      shared = batch.length;
    }
    running = null;
  };

  let ended = 0;
  /** How many shared the last commit. */
  let shared = 0;
  let hurry: () => void = () => undefined;
  const gather = async (): Promise<void> => {
    if (shared <= 1) return;
    const left = ended + Math.min(GATHERED.most, GATHERED.each * shared) - performance.now();
    if (left <= 0 || waiting.some(({ waits }) => !waits)) return;
    await new Promise<void>((resolve) => {
      const timer = setTimeout(resolve, left);
      hurry = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  };

  const acts = new AsyncLocalStorage<{ readonly act: Act; noted: boolean }>();
  const push = <T>(job: (tx: Transaction) => Promise<T>, manner: Manner): Promise<T> =>
    new Promise<T>((resolve, reject) => {
      waiting.push({
        job,
        ...manner,
        settle: (outcome) => {
          if (outcome.ok) resolve(outcome.value as T);
          else reject(toError(outcome.error));
        },
      });
      if (!manner.waits) hurry();
      running ??= drain();
    });

  const writeAs =
    (manner: Manner): Database['write'] =>
    async (job) => {
      const current = acts.getStore();
      if (current === undefined || current.noted) return push(job, manner);
      const value = await push(async (tx) => {
        await noteAct(tx, current.act);
        return job(tx);
      }, manner);
      current.noted = true;
      return value;
    };

  return {
    once: (act, work) => acts.run({ act, noted: false }, work),
    write: writeAs({ decides: true, waits: false }),
    writeAside: writeAs({ decides: false, waits: false }),
    writeTogether: writeAs({ decides: false, waits: true }),
    generation: () => generation,
    sealWith: async (seals, onForeign) => {
      await running;
      sealing = { seals, onForeign };
    },
    idle: async () => {
      await running;
    },
  };
}

/** @throws AlreadyDone */
async function noteAct(tx: Transaction, { key, asked, now }: Act): Promise<void> {
  const rows = await tx
    .insert(requestsDone)
    .values({ key, asked, answer: null, doneAt: now })
    .onConflictDoNothing()
    .returning({ key: requestsDone.key });
  if (rows.length === 0) throw new AlreadyDone();
}

/** Each job gets a savepoint of its own, so that a failed one leaves no trace among the others. */
async function runJob(outer: Transaction, batch: Batch, job: Waiting['job']): Promise<Outcome> {
  const { carried } = batch;
  let failure: { readonly error: unknown } | null = null;
  try {
    const value = await outer.transaction(async (tx: InBatch) => {
      tx[BATCH_OF] = batch;
      try {
        return await job(tx);
      } catch (error) {
        // Where the database has ended the transaction by itself, going back to the savepoint fails
        // as well, and says only that.
        failure = { error };
        throw error;
      }
    });
    return { ok: true, value };
  } catch (error) {
    batch.carried = carried;
    return { ok: false, error: (failure as { readonly error: unknown } | null)?.error ?? error };
  }
}

function toError(error: unknown): Error {
  return error instanceof Error ? error : new Error('A write failed.', { cause: error });
}
