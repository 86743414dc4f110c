import 'server-only';
import { equalBytes } from '@/core/base/bytes';
import { checkpointsAfter } from '@/server/repositories/ledger/checkpoint-repository';
import { lastSequence } from '@/server/repositories/ledger/access-changes';
import type { Deps } from '@/server/services/base/deps';

/**
 * Hands signed checkpoints to the witness outside the database, and notices where what is here is
 * older than what was witnessed, or signed by another key.
 */
export async function noteCheckpoints({
  db,
  witness,
  recorder,
  health,
}: Pick<Deps, 'db' | 'witness' | 'recorder' | 'health'>): Promise<void> {
  const { publicKey } = witness.read();
  if (publicKey === null) witness.begin(recorder.signer.publicKey);
  else if (!equalBytes(publicKey, recorder.signer.publicKey)) {
    health.raise('witness-key-differs');
    return;
  }
  const last = await lastSequence(db.read);
  if (witness.last() > last)
    health.raise('witness-ahead', `${String(witness.last())} ${String(last)}`);
  else health.clear('witness-ahead');
  witness.add(await checkpointsAfter(db.read, witness.last()));
}
