import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Verification } from '@/core/ledger/verify';

type Witness = { readonly size: number; readonly text: string };
/** What a thread is told: which database, whose key signs, and the checkpoints that were kept outside. */
export type VerifyTask = {
  readonly databaseUrl: string;
  readonly publicKey: Uint8Array;
  readonly witnesses: readonly Witness[];
};
/** What it answers with: how many entries are done, or what came of it. */
export type VerifyReply = { readonly entries: number } | { readonly verification: Verification };

/** Verifies the whole ledger beside the requests that go on. */
export type LedgerVerifier = {
  readonly verify: (
    publicKey: Uint8Array,
    witnesses: readonly Witness[],
  ) => AsyncGenerator<VerifyReply, void>;
};

/** Runs each verification in a thread with a connection of its own; one that is given up ends its thread. */
export function createLedgerVerifier(workersFolder: string, databaseUrl: string): LedgerVerifier {
  const file = path.resolve(workersFolder, 'verify-worker.mjs');
  return { verify: (publicKey, witnesses) => run(file, { databaseUrl, publicKey, witnesses }) };
}

async function* run(file: string, task: VerifyTask): AsyncGenerator<VerifyReply, void> {
  const worker = new Worker(file, { workerData: task });
  const replies: VerifyReply[] = [];
  const ended: { error: Error | null; isOver: boolean } = { error: null, isOver: false };
  let wake: () => void = () => undefined;
  worker.on('message', (reply: VerifyReply) => {
    replies.push(reply);
    wake();
  });
  worker.on('error', (error: unknown) => {
    ended.error = error instanceof Error ? error : new Error('The verification failed.');
    wake();
  });
  worker.on('exit', () => {
    ended.isOver = true;
    wake();
  });
  try {
    for (;;) {
      const reply = replies.shift();
      if (reply !== undefined) {
        yield reply;
        if ('verification' in reply) return;
      } else if (ended.error !== null) {
        throw ended.error;
      } else if (ended.isOver) {
        throw new Error('The verification ended early.');
      } else {
        await new Promise<void>((resolve) => {
          wake = resolve;
        });
      }
    }
  } finally {
    // Never ended from outside: a thread that is ended inside the database's own code takes the whole process with it.
    if (!ended.isOver) worker.postMessage('stop');
  }
}
