import 'server-only';
import type { Entry } from '@/core/ledger/entry';
import { countedEntries, emptyDays } from '@/server/repositories/ledger/ledger-counts';
import { lastSequence } from '@/server/repositories/ledger/access-changes';
import { personalBetween, storedEntries } from '@/server/repositories/ledger/ledger-chain';
import { countDays } from '@/server/repositories/ledger/ledger-writer';
import type { Deps } from '@/server/services/base/deps';

/** Counts the ledger anew where the counts are not those of all its entries: after an update, or a restore. */
export async function recountDays(deps: Pick<Deps, 'db' | 'recorder'>): Promise<void> {
  const { db, recorder } = deps;
  if ((await countedEntries(db.read)) === (await lastSequence(db.read))) return;
  await db.write(async (tx) => {
    await emptyDays(tx);
    for await (const block of storedEntries(db.read)) {
      const places = new Map(
        (
          await personalBetween(
            db.read,
            (block.at(0)?.sequence ?? 1) - 1,
            block.at(-1)?.sequence ?? 0,
          )
        )
          .filter(({ field }) => field === 'place')
          .map(({ sequence, value }) => [sequence, value]),
      );
      const facts = block.map(({ sequence, text }) => {
        const entry = JSON.parse(text) as Entry;
        return { ...entry, occurredAt: Date.parse(entry.occurredAt), place: places.get(sequence) };
      });
      await countDays(tx, facts, recorder.dayOf, block.at(-1)?.sequence ?? 0);
    }
  });
}
