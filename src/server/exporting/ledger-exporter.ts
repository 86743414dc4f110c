import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { EntryFilter, Span } from '@/core/insight/filter';

/** Entries joined into one piece. */
export const BLOCK = 2_000;
/** Pieces a thread may be ahead of the download: bounds the memory of a slow download. */
const AHEAD = 4;
/**
 * Entries in one stretch of the ledger, the unit that the threads take turns with: as much as a
 * thread may be ahead, so that it need not wait for the other.
 */
export const STRETCH = AHEAD * BLOCK;

/** What a thread is told: which entries, up to which, from which database, and which stretches are its own. */
export type ExportTask = {
  readonly databaseUrl: string;
  readonly filter: EntryFilter;
  readonly span: Span;
  readonly upTo: number;
  readonly first: number;
  readonly every: number;
};
/** What it is sent while it works: how many more pieces are wanted, or that it is to stop. */
export type ExportWord = number | 'stop';
/** What it answers with: a piece of the file, or that a stretch is over. */
export type ExportReply = { readonly piece: Uint8Array } | { readonly over: true };

/** Makes files of the ledger beside the requests that go on. */
export type LedgerExporter = {
  readonly csv: (filter: EntryFilter, span: Span, upTo: number) => AsyncGenerator<Uint8Array, void>;
};

/** Threads that make one export: the stretches of one are read while those of the other are written. */
const THREADS = 2;
/** What a thread’s short-lived text may take before it is cleared: more would only be kept longer. */
const YOUNG_MB = 16;

/** Runs each export in worker threads with connections of their own; one that is given up ends its threads. */
export function createLedgerExporter(workersFolder: string, databaseUrl: string): LedgerExporter {
  const file = path.resolve(workersFolder, 'export-worker.mjs');
  return {
    csv: (filter, span, upTo) => run(file, { databaseUrl, filter, span, upTo, every: THREADS }),
  };
}

async function* run(
  file: string,
  task: Omit<ExportTask, 'first'>,
): AsyncGenerator<Uint8Array, void> {
  const stretches = Math.ceil(task.upTo / STRETCH);
  const threads = Array.from({ length: Math.min(THREADS, stretches) }, (_, first) =>
    startThread(file, { ...task, first }),
  );
  try {
    // In the order of the ledger, whichever thread was faster.
    for (let stretch = 0; stretch < stretches; stretch++)
      yield* threads[stretch % THREADS]?.nextStretch() ?? [];
  } finally {
    await Promise.all(threads.map((thread) => thread.end()));
  }
}

type Thread = {
  readonly nextStretch: () => AsyncGenerator<Uint8Array, void>;
  readonly end: () => Promise<unknown>;
};

function startThread(file: string, task: ExportTask): Thread {
  const worker = new Worker(file, {
    workerData: task,
    resourceLimits: { maxYoungGenerationSizeMb: YOUNG_MB },
  });
  const replies: ExportReply[] = [];
  const failed: { error: Error | null } = { error: null };
  let wake: () => void = () => undefined;
  worker.on('message', (reply: ExportReply) => {
    replies.push(reply);
    wake();
  });
  worker.on('error', (error: unknown) => {
    failed.error = error instanceof Error ? error : new Error('The export failed.');
    wake();
  });
  worker.on('exit', (code) => {
    if (code !== 0) failed.error ??= new Error(`The export ended early (${String(code)}).`);
    wake();
  });
  const over = new Promise<void>((resolve) => {
    worker.on('exit', () => {
      resolve();
    });
  });
  const tell = (word: ExportWord): void => {
    worker.postMessage(word);
  };
  tell(AHEAD);
  return {
    // Never ended from outside: a thread that is ended inside the database's own code takes the whole process with it.
    end: () => {
      tell('stop');
      return over;
    },
    nextStretch: async function* () {
      for (;;) {
        const reply = replies.shift();
        if (reply === undefined) {
          if (failed.error !== null) throw failed.error;
          await new Promise<void>((resolve) => {
            wake = resolve;
          });
        } else if ('over' in reply) {
          return;
        } else {
          tell(1);
          yield reply.piece;
        }
      }
    },
  };
}
