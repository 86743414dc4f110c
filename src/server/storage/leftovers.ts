import { existsSync, readdirSync, rmSync } from 'node:fs';
import path from 'node:path';

/** What a copy of the database is called while a backup is made of it. */
const COPY = /^\.backup-[0-9a-f]+\.db/;

export function copyName(mark: string): string {
  return `.backup-${mark}.db`;
}

/**
 * Removes copies of the database that a killed backup left behind: they hold keys that may be
 * destroyed since.
 * @returns how many there were
 */
export function clearCopies(folder: string): number {
  const names = existsSync(folder) ? readdirSync(folder).filter((name) => COPY.test(name)) : [];
  for (const name of names) rmSync(path.join(folder, name), { force: true });
  return names.length;
}
