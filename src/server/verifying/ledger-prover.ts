import path from 'node:path';
import { Worker } from 'node:worker_threads';

/** What a thread is told: which database, which entries, and the size of the tree that they are proven in. */
export type ProveTask = {
  readonly databaseUrl: string;
  readonly sequences: readonly number[];
  readonly size: number;
};
/** By sequence, the audit path of each entry, hashes in hex from the leaf up (RFC 6962 §2.1.1). */
export type Proofs = ReadonlyMap<number, readonly string[]>;

/** Proves beside the requests that go on that entries stand in the ledger as a checkpoint has it. */
export type LedgerProver = {
  readonly prove: (sequences: readonly number[], size: number) => Promise<Proofs>;
};

/** Runs each proof in a thread with a connection of its own. */
export function createLedgerProver(workersFolder: string, databaseUrl: string): LedgerProver {
  const file = path.resolve(workersFolder, 'prove-worker.mjs');
  return { prove: (sequences, size) => run(file, { databaseUrl, sequences, size }) };
}

// Apart from where the file is named: the framework's bundler would take the two together for a module of its own.
function run(file: string, task: ProveTask): Promise<Proofs> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(file, { workerData: task });
    worker.once('message', (proofs: Proofs) => {
      resolve(proofs);
    });
    worker.once('error', (error: unknown) => {
      reject(error instanceof Error ? error : new Error('Proving failed.'));
    });
    worker.once('exit', () => {
      reject(new Error('Proving ended early.'));
    });
  });
}
