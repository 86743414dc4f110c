import { dispatchPageInput } from '@/contracts/dispatch';
import { loadForStaff } from '@/server/http/handle';
import { viewAfterRevocation } from '@/server/services/ledger/after-revocation';
import { AfterView } from '@/ui/after/after-view';

export default async function AfterDispatchPage({
  params,
}: {
  readonly params: Promise<{ readonly id: string }>;
}) {
  const given = await params;
  const page = await loadForStaff('look', (deps, actor) =>
    viewAfterRevocation(deps, actor, { dispatch: dispatchPageInput.parse(given).id }),
  );
  return <AfterView page={page} />;
}
