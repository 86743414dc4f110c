import 'server-only';
import type { Database } from '@/server/db/database';
import {
  mendTexts,
  nameOfUnreadable,
  unreadableTexts,
  type Unreadable,
} from '@/server/db/unreadable';
import type { Health } from '@/server/health/health';

/** Most places named in one line. */
const MOST_NAMED = 5;

function andMore(left: number): string {
  return left > 0 ? ` and ${String(left)} more` : '';
}

/** What is known of the database's own state: places that are harmed, by name. */
export function sayDamaged(health: Health, places: readonly string[]): void {
  health.raise(
    'database-damaged',
    `${places.slice(0, MOST_NAMED).join(', ')}${andMore(places.length - MOST_NAMED)}`,
  );
}

/** Mends texts that would end the process, and says which they were. */
export async function mendFound(
  db: Database,
  health: Health,
  found: readonly Unreadable[],
): Promise<void> {
  if (found.length === 0) return;
  await db.write((tx) => mendTexts(tx, found));
  sayDamaged(health, found.map(nameOfUnreadable));
}

/** Looks through these tables for texts that would end the process, before anything else reads them. */
export async function mendDatabase(
  db: Database,
  health: Health,
  which: (table: string) => boolean,
): Promise<void> {
  await mendFound(db, health, await unreadableTexts(db.read, which));
}
