import { composeInput } from '@/contracts/draft';
import { loadForStaff } from '@/server/http/handle';
import { startCompose } from '@/server/services/dispatching/start-compose';
import { ComposeHere } from '@/ui/compose/compose-here';

export default async function ComposePage({
  searchParams,
}: {
  readonly searchParams: Promise<Record<string, string>>;
}) {
  const { document: chosen, draft, again, take, to } = composeInput.parse(await searchParams);
  const start = await loadForStaff('dispatch', (deps, actor) =>
    startCompose(deps, actor, {
      draft,
      chosen,
      again: again === null ? null : { dispatch: again, take },
    }),
  );
  return <ComposeHere start={start} chosen={chosen} to={to} />;
}
