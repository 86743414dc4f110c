import { parentPort, workerData } from 'node:worker_threads';
import { sql } from 'drizzle-orm';
import { openForReading } from '@/server/db/database';
import type { CheckReply, CheckTask } from '@/server/checking/database-check';
import { LONG_TABLES, unreadableTexts } from '@/server/db/unreadable';

/** A page that is harmed in many ways is said to be so once. */
const MOST = 5;

const { databaseUrl } = workerData as CheckTask;
const { read, close } = openForReading(databaseUrl);
const unreadable = await unreadableTexts(read, (table) => LONG_TABLES.includes(table));
// The order of pages and rows (SQLite, PRAGMA quick_check): read through once, beside everything else.
const rows = await read
  .all<{ quick_check: string }>(sql`PRAGMA quick_check(${sql.raw(String(MOST))})`)
  .catch((error: unknown) => [
    { quick_check: error instanceof Error ? error.message : 'not readable' },
  ]);
const problems = rows.map(({ quick_check: found }) => found).filter((found) => found !== 'ok');
close();
parentPort?.postMessage({ unreadable, problems } satisfies CheckReply);
