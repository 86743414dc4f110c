import { listDispatchesInput } from '@/contracts/dispatch-list';
import { loadForStaff } from '@/server/http/handle';
import { viewDispatches } from '@/server/services/dispatching/list-dispatches';
import { viewHeld } from '@/server/services/dispatching/hold-dispatch';
import { DispatchesView } from '@/ui/dispatches/dispatches-view';
import { heldRows } from '@/words/held-words';

export default async function DispatchesPage({
  searchParams,
}: {
  readonly searchParams: Promise<Record<string, string>>;
}) {
  const given = await searchParams;
  const { page, held, now } = await loadForStaff('look', async (deps, actor) => ({
    page: await viewDispatches(deps, actor, listDispatchesInput.parse(given)),
    held: heldRows(await viewHeld(deps, actor)),
    now: deps.clock.now(),
  }));
  return <DispatchesView page={page} held={held} now={now} />;
}
