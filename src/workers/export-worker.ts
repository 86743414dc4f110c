import { parentPort, workerData } from 'node:worker_threads';
import { createClient, type Client } from '@libsql/client';
import { drizzle } from 'drizzle-orm/libsql';
import { csvField } from '@/core/base/csv';
import type { Entry } from '@/core/ledger/entry';
import * as schema from '@/server/db/schema';
import { STRETCH, type ExportReply, type ExportTask } from '@/server/exporting/ledger-exporter';
import { entriesWhere } from '@/server/repositories/ledger-reader';
import { allNames } from '@/server/repositories/organisation-repository';
import { EXPORT_COLUMNS, toLedgerRow } from '@/server/services/ledger-rows';

const HASH = 64;
const NONE = {};
/** What may hold anything; the others are numbers, times, ids and words of our own. */
const FREE: ReadonlySet<string> = new Set(['who', 'what', 'place', 'network', 'detail']);
const HOLDS_ANYTHING = EXPORT_COLUMNS.map((column) => FREE.has(column));
/** Entries joined inside SQLite: a row handed over costs more than the text in it. */
const BLOCK = 2_000;

const { databaseUrl, filter, span, upTo, first, every } = workerData as ExportTask;
const client: Client = createClient({ url: databaseUrl });
const db = drizzle(client, { schema, casing: 'snake_case' });

let credit = 0;
let wake: () => void = () => undefined;
parentPort?.on('message', (more: number) => { credit += more; wake(); });

async function send(text: string): Promise<void> {
  while (credit === 0) await new Promise<void>((resolve) => { wake = resolve; });
  credit--;
  const piece = new TextEncoder().encode(text);
  parentPort?.postMessage({ piece } satisfies ExportReply, [piece.buffer]);
}

type Personal = Map<number, Record<string, string>>;

async function personalOf(sequences: readonly number[]): Promise<Personal> {
  const [oldest, newest] = [sequences.at(-1) ?? 0, sequences[0] ?? 0];
  // A stretch without gaps is one range; a sparse one names its few. These are numbers out of the database, never text of anybody's.
  const which = newest - oldest + 1 === sequences.length ? `sequence BETWEEN ${String(oldest)} AND ${String(newest)}` : `sequence IN (${sequences.join(',')})`;
  const { rows } = await client.execute(`SELECT json_group_array(json_array(sequence, field, value)) AS found FROM ledger_personal WHERE ${which} AND field IN ('address', 'network', 'place')`);
  const found = rows[0]?.['found'];
  const personal: Personal = new Map();
  if (typeof found !== 'string') return personal;
  for (const [sequence, field, value] of JSON.parse(found) as [number, string, string][]) {
    const own = personal.get(sequence);
    if (own === undefined) personal.set(sequence, { [field]: value });
    else own[field] = value;
  }
  return personal;
}

const names = await allNames(db);

/** The rows of a block of entries, as lines of the file. */
async function linesOf(block: string): Promise<{ readonly text: string; readonly last: number }> {
  // Canonical JSON never holds a raw line break, so one separates entries without doubt.
  const read = block.split('\n').map((line) => ({ hash: line.slice(0, HASH), entry: JSON.parse(line.slice(HASH + 1)) as Entry }));
  const personal = await personalOf(read.map(({ entry }) => entry.sequence));
  let text = '';
  for (const { hash, entry } of read) {
    const row = toLedgerRow({ entry, hash, personal: personal.get(entry.sequence) ?? NONE }, names);
    for (let i = 0; i < EXPORT_COLUMNS.length; i++) {
      const value = row[EXPORT_COLUMNS[i] ?? 'hash'] ?? '';
      text += i === 0 ? '' : ',';
      text += HOLDS_ANYTHING[i] === true ? csvField(String(value)) : value;
    }
    text += '\r\n';
  }
  return { text, last: read.at(-1)?.entry.sequence ?? 0 };
}

for (let end = upTo - first * STRETCH; end > 0; end -= every * STRETCH) {
  for (let before = end + 1; ; ) {
    const [block] = await db.all<{ rows: string | null }>(entriesWhere(filter, span, { after: end - STRETCH, before }, BLOCK));
    if (block?.rows == null) break;
    const { text, last } = await linesOf(block.rows);
    await send(text);
    before = last;
  }
  parentPort?.postMessage({ over: true } satisfies ExportReply);
}
client.close();
parentPort?.close();
