import { opensInput } from '@/contracts/opens';
import { loadForStaff } from '@/server/http/handle';
import { viewOpens } from '@/server/services/ledger/count-opens';
import { OpensView } from '@/ui/opens/opens-view';

export default async function OpensPage({
  searchParams,
}: {
  readonly searchParams: Promise<Record<string, string>>;
}) {
  const given = await searchParams;
  const { filter, page } = await loadForStaff('read-own-record', async (deps, actor) => {
    const input = opensInput.parse(given);
    return { filter: input, page: await viewOpens(deps, actor, input) };
  });
  return <OpensView key={JSON.stringify(filter)} page={page} filter={filter} />;
}
