import 'server-only';
import { newId, type ViewId } from '@/core/base/ids';
import type { KeepViewInput } from '@/contracts/views';
import { putViewRow, removeViewRow } from '@/server/repositories/staff/view-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';

/** Keeps a view of a list under a name, for oneself; one of the same name is replaced. */
export async function keepView(
  deps: Deps,
  actor: StaffActor,
  view: KeepViewInput,
): Promise<{ readonly id: ViewId }> {
  const id = newId('view', deps.random);
  await deps.db.write((tx) =>
    putViewRow(tx, { ...view, id, staffId: actor.id, createdAt: deps.clock.now() }),
  );
  return { id };
}

/** Removes a view of one's own; of somebody else's nothing is said. */
export async function dropView(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: ViewId },
): Promise<Record<string, never>> {
  await deps.db.write((tx) => removeViewRow(tx, id, actor.id));
  return {};
}
