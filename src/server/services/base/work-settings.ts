import 'server-only';
import { workSettings, type WorkChange, type WorkSettings } from '@/contracts/settings';
import type { Reading, Transaction } from '@/server/db/database';
import { findSetting, putSetting } from '@/server/repositories/staff/settings-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { record } from '@/server/services/base/record';

const NAME = 'work';

/** How work is done here; what nobody chose is as it comes. */
export async function readWorkSettings(db: Reading | Transaction): Promise<WorkSettings> {
  return workSettings.parse((await findSetting(db, NAME)) ?? {});
}

/** The same for the screen. */
export function viewWorkSettings(deps: Pick<Deps, 'db'>): Promise<WorkSettings> {
  return readWorkSettings(deps.db.read);
}

/** Chooses how work is done here; two who choose different things at once both have their way. */
export async function putWorkSettings(
  deps: Deps,
  actor: StaffActor,
  change: WorkChange,
): Promise<WorkSettings> {
  return deps.db.write(async (tx) => {
    const before = await readWorkSettings(tx);
    const after = workSettings.parse({ ...before, ...change });
    await putSetting(tx, NAME, after);
    await record(deps, tx, {
      action: 'settings.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: deps.clock.now(),
      details: { work: true, before, after },
    });
    return after;
  });
}
