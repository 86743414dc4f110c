import { existsSync } from 'node:fs';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Unreadable } from '@/server/db/unreadable';

export type CheckTask = { readonly databaseUrl: string };
/** `problems`: what SQLite says of its pages, in its words. */
export type CheckReply = {
  readonly unreadable: readonly Unreadable[];
  readonly problems: readonly string[];
};

/** Reads the whole database through in a thread of its own. @throws whatever ended the thread */
export function checkDatabase(workersFolder: string, databaseUrl: string): Promise<CheckReply> {
  const file = path.resolve(workersFolder, 'check-worker.mjs');
  if (!existsSync(file)) throw new Error(`The worker ${file} has not been built.`);
  return inThread(file, databaseUrl);
}

/** The file comes from outside: the framework's bundler would else look for it among its own modules. */
function inThread(file: string, databaseUrl: string): Promise<CheckReply> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(file, { workerData: { databaseUrl } satisfies CheckTask });
    worker.once('message', resolve);
    worker.once('error', reject);
    worker.once('exit', () => {
      reject(new Error('The check ended early.'));
    });
  });
}
