import { loadForStaff } from '@/server/http/handle';
import { listDispatches } from '@/server/services/dispatching/list-dispatches';
import { viewHeld } from '@/server/services/dispatching/hold-dispatch';
import { DispatchesView } from '@/ui/dispatches/dispatches-view';
import { heldRows } from '@/words/held-words';

export default async function DispatchesPage() {
  const { rows, held, now } = await loadForStaff('look', async (deps, actor) => ({
    rows: await listDispatches(deps),
    held: heldRows(await viewHeld(deps, actor)),
    now: deps.clock.now(),
  }));
  return <DispatchesView rows={rows} held={held} now={now} />;
}
