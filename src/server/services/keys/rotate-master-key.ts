import 'server-only';
import type { LedgerEvent } from '@/core/ledger/entry';
import {
  countWrapsBefore,
  serviceWrapsBefore,
  wrapsBefore,
  type StoredWrap,
} from '@/server/repositories/documents/key-repository';
import type { Transaction } from '@/server/db/database';
import type { Deps } from '@/server/services/base/deps';
import { record } from '@/server/services/base/record';
import { beginGeneration, keepOnlyGeneration } from '@/server/vault/master-key';

/** Keys wrapped anew in one transaction: a server beside this waits for no longer than that takes. */
const AT_ONCE = 200;

export type Rotation = { readonly generation: number; readonly keys: number };

/**
 * Puts every stored key under a new master key and forgets the old one. Content is not touched, and
 * a server on the same database goes on serving.
 *
 * It can be cut off at any point and started again: the old key is forgotten last, in the file that
 * holds both meanwhile, and only once a transaction has found nothing under it. Every wrap is
 * written in a transaction that looked up the newest generation, so none can come after that.
 *
 * @param progress is told how many keys are done, of how many
 * @throws VaultError where a stored key does not open; nothing is forgotten then
 */
export async function rotateMasterKey(
  deps: Pick<Deps, 'db' | 'vault' | 'recorder' | 'clock'>,
  masterKeyFile: string,
  actor: LedgerEvent['actor'],
  progress: (done: number, all: number) => void = () => undefined,
): Promise<Rotation> {
  const generation = await deps.db.write(() => Promise.resolve(beginGeneration(masterKeyFile)));
  const all = await countWrapsBefore(deps.db.read, generation);
  const again = async (tx: Transaction, wraps: readonly StoredWrap[]): Promise<void> => {
    for (const wrap of wraps)
      await wrap.replace(tx, deps.vault.wrap(deps.vault.unwrap(wrap, wrap.owner), wrap.owner));
  };
  let done = 0;
  for (let more = true; more;) {
    more = await deps.db.write(async (tx) => {
      const wraps = await wrapsBefore(tx, generation, AT_ONCE);
      await again(tx, wraps);
      if (wraps.length > 0) {
        done += wraps.length;
        return true;
      }
      // The service's own keys go last, with the entry: a rotation that was cut off after them is
      // over but for the old key.
      const own = await serviceWrapsBefore(tx, generation);
      await again(tx, own);
      if (own.length > 0)
        await record(deps, tx, {
          action: 'key.rotated',
          outcome: 'done',
          actor,
          occurredAt: deps.clock.now(),
          details: { generation },
        });
      return false;
    });
    progress(done, Math.max(all, done));
  }
  await deps.db.write(() => {
    keepOnlyGeneration(masterKeyFile, generation);
    return Promise.resolve();
  });
  // Wraps under the old key are not left in the log of the database either.
  await deps.db.checkpoint();
  return { generation, keys: done };
}
