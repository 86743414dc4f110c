import { parentPort, workerData } from 'node:worker_threads';
import { createClient, type Client } from '@libsql/client';
import { drizzle } from 'drizzle-orm/libsql';
import { csvField } from '@/core/base/csv';
import type { Entry } from '@/core/ledger/entry';
import * as schema from '@/server/db/schema';
import type { ExportReply, ExportTask } from '@/server/exporting/ledger-exporter';
import { entriesWhere } from '@/server/repositories/ledger-reader';
import { allNames } from '@/server/repositories/organisation-repository';
import { toLedgerRow } from '@/server/services/ledger-rows';

const COLUMNS = ['sequence', 'occurredAt', 'receivedAt', 'who', 'action', 'outcome', 'reason', 'what', 'place', 'network', 'detail', 'document', 'recipient', 'dispatch', 'hash'] as const;
/** Entries joined inside SQLite: a row handed over costs more than the text in it. */
const BLOCK = 4_000;

const { databaseUrl, filter, span, upTo } = workerData as ExportTask;
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
  const [first, last] = [sequences.at(-1) ?? 0, sequences[0] ?? 0];
  // A stretch without gaps is one range; a sparse one names its few. These are numbers out of the database, never text of anybody's.
  const which = last - first + 1 === sequences.length ? `sequence BETWEEN ${String(first)} AND ${String(last)}` : `sequence IN (${sequences.join(',')})`;
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
await send(`${COLUMNS.join(',')}\r\n`);
for (let before = upTo + 1; ; ) {
  // Canonical JSON never holds a raw line break, so one separates entries without doubt.
  const [block] = await db.all<{ rows: string | null }>(entriesWhere(filter, span, before, BLOCK));
  if (block?.rows == null) break;
  const lines = block.rows.split('\n');
  const read = lines.map((line) => ({ hash: line.slice(0, 64), entry: JSON.parse(line.slice(65)) as Entry }));
  const personal = await personalOf(read.map(({ entry }) => entry.sequence));
  let text = '';
  for (const { hash, entry } of read) {
    const row = toLedgerRow({ entry, hash, personal: personal.get(entry.sequence) ?? {} }, names);
    for (const column of COLUMNS) text += `${csvField(String(row[column] ?? ''))}${column === 'hash' ? '\r\n' : ','}`;
  }
  await send(text);
  before = read.at(-1)?.entry.sequence ?? 0;
}
client.close();
parentPort?.postMessage({ done: true } satisfies ExportReply);
parentPort?.close();
