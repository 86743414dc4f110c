import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { EntryFilter, Span } from '@/core/insight/filter';

/** What the thread is told: which entries, up to which, from which database. */
export type ExportTask = { readonly databaseUrl: string; readonly filter: EntryFilter; readonly span: Span; readonly upTo: number };
/** What it answers with: a piece of the file, or that it is done. */
export type ExportReply = { readonly piece: Uint8Array } | { readonly done: true };

/** Makes files of the ledger beside the requests that go on. */
export type LedgerExporter = { readonly csv: (filter: EntryFilter, span: Span, upTo: number) => AsyncGenerator<Uint8Array, void> };

/** Pieces the thread may be ahead of whoever downloads: bounds the memory of a slow download. */
const AHEAD = 3;

/** Runs each export in a worker thread with a connection of its own; one that is given up ends its thread. */
export function createLedgerExporter(workersFolder: string, databaseUrl: string): LedgerExporter {
  return { csv: (filter, span, upTo) => run(path.resolve(workersFolder, 'export-worker.mjs'), { databaseUrl, filter, span, upTo }) };
}

async function* run(file: string, task: ExportTask): AsyncGenerator<Uint8Array, void> {
  const worker = new Worker(file, { workerData: task });
  const pieces: Uint8Array[] = [];
  const state: { over: boolean; error: Error | null } = { over: false, error: null };
  let wake: () => void = () => undefined;
  worker.on('message', (reply: ExportReply) => {
    if ('piece' in reply) pieces.push(reply.piece);
    else state.over = true;
    wake();
  });
  worker.on('error', (error: unknown) => { state.error = error instanceof Error ? error : new Error('The export failed.'); wake(); });
  worker.on('exit', (code) => { if (!state.over) state.error ??= new Error(`The export ended early (${String(code)}).`); wake(); });
  try {
    worker.postMessage(AHEAD);
    for (;;) {
      const piece = pieces.shift();
      if (piece !== undefined) {
        worker.postMessage(1);
        yield piece;
      } else if (state.error !== null) {
        throw state.error;
      } else if (state.over) {
        return;
      } else {
        await new Promise<void>((resolve) => { wake = resolve; });
      }
    }
  } finally {
    await worker.terminate();
  }
}
