import 'server-only';
import type { Logger } from 'pino';
import type { BrokenSeal } from '@/server/db/seals';
import type { Deps } from '@/server/services/base/deps';
import { recordAlone } from '@/server/services/base/record';

/** Most rows named in one entry. */
const MOST_NAMED = 20;

/**
 * Reports rows that another program wrote, each once: on the ledger, in the log and on Today. It
 * waits for nobody: anyone who came upon one may be in the middle of a transaction.
 */
export function createSealReport(
  deps: Pick<Deps, 'db' | 'recorder' | 'clock' | 'health'>,
  log: Logger,
): (rows: readonly BrokenSeal[]) => void {
  const reported = new Set<string>();
  return (rows) => {
    const fresh = rows.filter(({ table, key }) => !reported.has(`${table} ${key}`));
    if (fresh.length === 0) return;
    for (const { table, key } of fresh) reported.add(`${table} ${key}`);
    const named = fresh.slice(0, MOST_NAMED).map(({ table, key }) => `${table} ${key}`.trim());
    deps.health.raise('seal-broken', named.join(', '));
    log.error({ rows: named }, 'rows were changed in the database by another program');
    recordAlone(deps, {
      action: 'seal.broken',
      outcome: 'failed',
      actor: { kind: 'system', id: null },
      occurredAt: deps.clock.now(),
      details: { rows: named, count: fresh.length },
    }).catch((error: unknown) => {
      log.error({ err: error }, 'a report could not be written');
    });
  };
}
