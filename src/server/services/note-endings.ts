import 'server-only';
import { endingsSince } from '@/server/repositories/ended-repository';
import type { Deps } from '@/server/services/deps';

/**
 * Adds to the list outside the database how access stands that changed since. A second process may
 * add the same again; the newest line of a subject counts.
 */
export async function noteEndings({ db, ended }: Pick<Deps, 'db' | 'ended'>): Promise<void> {
  ended.add(await endingsSince(db.read, ended.keptUpTo()));
}
