import { mkdtempSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { LedgerEvent } from '@/core/ledger/entry';
import { appendEntries } from '@/server/repositories/ledger/ledger-writer';
import { startProduct } from '../tests/support/product';
import { startBuilt, until } from './built-server';
import { median, say } from './measure';

const ROUNDS = 5;
const PIECE = 1_000;
const LEDGERS = [1_000, 11_000, 110_000];

type Start = { readonly healthz: number; readonly page: number; readonly processor: number };

async function prepared(folder: string, entries: number): Promise<string> {
  const product = await startProduct(mkdtempSync(path.join(folder, 'start-')));
  const entry: LedgerEvent = {
    action: 'page.shown',
    outcome: 'granted',
    actor: { kind: 'staff', id: product.ida.id },
    occurredAt: product.clock.now(),
    details: { page: 1 },
  };
  for (let i = 0; i < entries; i += PIECE) {
    await product.deps.db.write((tx) =>
      appendEntries(
        tx,
        product.deps.recorder,
        Array.from({ length: PIECE }, () => entry),
      ),
    );
  }
  await product.container.close();
  return product.folder;
}

/** Starts the built server, waits for its first page, kills it. Times in seconds. */
async function start(folder: string): Promise<Start> {
  const began = performance.now();
  const { url, pid, kill } = await startBuilt(folder);
  await until(`${url}/healthz`);
  const healthz = (performance.now() - began) / 1000;
  await until(`${url}/sign-in`);
  const page = (performance.now() - began) / 1000;
  const stat = readFileSync(`/proc/${String(pid)}/stat`, 'utf8').split(' ');
  await kill();
  return { healthz, page, processor: (Number(stat[13]) + Number(stat[14])) / 100 };
}

/** From the process's first moment to its first page, after a kill, with ledgers of several lengths. */
export async function starting(folder: string): Promise<void> {
  for (const entries of LEDGERS) {
    const at = await prepared(folder, entries);
    const starts: Start[] = [];
    for (let i = 0; i < ROUNDS; i++) starts.push(await start(at));
    const [healthz, page, processor] = (['healthz', 'page', 'processor'] as const).map((key) =>
      median(starts.map((each) => each[key])).toFixed(1),
    );
    say(
      `start: after a kill, ${String(entries)} entries`,
      `serves ${healthz ?? ''} s, first page ${page ?? ''} s, ${processor ?? ''} s of processor`,
      '2 s, whatever the ledger',
    );
  }
}
