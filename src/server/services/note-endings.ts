import 'server-only';
import { endingsSince } from '@/server/repositories/ended-repository';
import type { Deps } from '@/server/services/deps';

/**
 * Adds to the list outside the database how access stands that changed since. A second process may
 * add the same again; the newest line of a subject counts.
 */
export async function noteEndings({ db, ended, keyring, renderer }: Pick<Deps, 'db' | 'ended' | 'keyring' | 'renderer'>): Promise<void> {
  const endings = await endingsSince(db.read, ended.keptUpTo());
  ended.add(endings);
  // Another process may have destroyed it: what this one holds of it goes as well.
  if (!endings.some((ending) => ending.of === 'document' && ending.destroyed)) return;
  keyring.clear();
  renderer.forget();
}
