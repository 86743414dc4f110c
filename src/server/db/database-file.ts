import { existsSync } from 'node:fs';

/** The file that a database address names. */
export function databaseFile(url: string): string {
  return url.replace(/^file:/, '');
}

/** The address of a database in a file. */
export function databaseAddress(file: string): string {
  return `file:${file}`;
}

/** Whether there is a database already, without making one. */
export function hasDatabase(url: string): boolean {
  return existsSync(databaseFile(url));
}
