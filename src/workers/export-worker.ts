import { parentPort, workerData } from 'node:worker_threads';
import { csvField } from '@/core/base/csv';
import type { Entry } from '@/core/ledger/entry';
import { openForReading } from '@/server/db/database';
import {
  BLOCK,
  STRETCH,
  type ExportReply,
  type ExportTask,
  type ExportWord,
} from '@/server/exporting/ledger-exporter';
import { entriesWhere, personalOf } from '@/server/repositories/ledger/ledger-reader';
import { allNames } from '@/server/repositories/ledger/name-repository';
import { EXPORT_COLUMNS, toExportRow } from '@/server/services/ledger/ledger-rows';

const HASH = 64;
const NONE = {};
/** What may hold anything; the others are numbers, times, ids and words of our own. */
const FREE: ReadonlySet<string> = new Set([
  'who',
  'what',
  'to',
  'device',
  'place',
  'network',
  'detail',
]);
const HOLDS_ANYTHING = EXPORT_COLUMNS.map((column) => FREE.has(column));

const { databaseUrl, filter, span, upTo, first, every } = workerData as ExportTask;
const { read: db, close } = openForReading(databaseUrl);

let credit = 0;
let wake: () => void = () => undefined;
let stopped = false;
parentPort?.on('message', (word: ExportWord) => {
  if (word === 'stop') stopped = true;
  else credit += word;
  wake();
});

async function send(text: string): Promise<void> {
  while (credit === 0 && !stopped)
    await new Promise<void>((resolve) => {
      wake = resolve;
    });
  credit--;
  const piece = new TextEncoder().encode(text);
  parentPort?.postMessage({ piece } satisfies ExportReply, [piece.buffer]);
}

const names = await allNames(db);

/** The rows of a block of entries, as lines of the file. */
async function linesOf(block: string): Promise<{ readonly text: string; readonly last: number }> {
  // Canonical JSON never holds a raw line break, so one separates entries without doubt.
  const read = block.split('\n').map((line) => ({
    hash: line.slice(0, HASH),
    entry: JSON.parse(line.slice(HASH + 1)) as Entry,
  }));
  const personal = await personalOf(
    db,
    read.map(({ entry }) => entry.sequence),
    ['address', 'network', 'place', 'text'],
  );
  let text = '';
  for (const { hash, entry } of read) {
    const row = toExportRow({ entry, hash, personal: personal.get(entry.sequence) ?? NONE }, names);
    for (let i = 0; i < EXPORT_COLUMNS.length; i++) {
      const value = row[EXPORT_COLUMNS[i] ?? 'hash'];
      text += i === 0 ? '' : ',';
      text += HOLDS_ANYTHING[i] === true ? csvField(String(value)) : String(value);
    }
    text += '\r\n';
  }
  return { text, last: read.at(-1)?.entry.sequence ?? 0 };
}

// “stopped” is set between two blocks, by a message that comes while one waits.
const goesOn = (): boolean => !stopped;
for (let end = upTo - first * STRETCH; end > 0 && goesOn(); end -= every * STRETCH) {
  for (let before = end + 1; goesOn();) {
    const [block] = await db.all<{ rows: string | null }>(
      entriesWhere(filter, span, { after: end - STRETCH, before }, BLOCK),
    );
    if (block?.rows == null) break;
    const { text, last } = await linesOf(block.rows);
    await send(text);
    before = last;
  }
  parentPort?.postMessage({ over: true } satisfies ExportReply);
}
close();
parentPort?.close();
