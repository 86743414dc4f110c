import 'server-only';
import { endingsSince } from '@/server/repositories/access/ended-repository';
import { lastSequence } from '@/server/repositories/ledger/access-changes';
import type { Deps } from '@/server/services/base/deps';

/**
 * At the start: where the database was put back to what it once was, beside a list that went on,
 * what ends from now on is noted all the same.
 */
export async function goOnNoting({ db, ended }: Pick<Deps, 'db' | 'ended'>): Promise<void> {
  const last = await lastSequence(db.read);
  if (ended.keptUpTo() > last) ended.goBack(last);
}

/**
 * Adds to the list outside the database how access stands that changed since. A second process may
 * add the same again; the newest line of a subject counts.
 */
export async function noteEndings({
  db,
  ended,
  keyring,
  renderer,
}: Pick<Deps, 'db' | 'ended' | 'keyring' | 'renderer'>): Promise<void> {
  const endings = await endingsSince(db.read, ended.keptUpTo());
  ended.add(endings);
  // Another process may have destroyed it: what this one holds of it goes as well.
  if (!endings.some((ending) => ending.of === 'document' && ending.destroyed)) return;
  keyring.clear();
  renderer.forget();
}
