import { dispatchPageInput } from '@/contracts/dispatch';
import { loadForStaff } from '@/server/http/handle';
import { viewDispatch } from '@/server/services/dispatching/view-dispatch';
import { DispatchView } from '@/ui/dispatches/dispatch-view';

export default async function DispatchPage({
  params,
}: {
  readonly params: Promise<{ readonly id: string }>;
}) {
  const given = await params;
  const { detail, now } = await loadForStaff('look', async (deps, actor) => ({
    detail: await viewDispatch(deps, actor, dispatchPageInput.parse(given)),
    now: deps.clock.now(),
  }));
  return <DispatchView detail={detail} now={now} />;
}
