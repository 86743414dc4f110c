import { ledgerInput } from '@/contracts/ledger';
import { loadForStaff } from '@/server/http/handle';
import { listLedger } from '@/server/services/ledger/list-entries';
import { LedgerView } from '@/ui/ledger/ledger-view';

export default async function LedgerPage({
  searchParams,
}: {
  readonly searchParams: Promise<Record<string, string | string[]>>;
}) {
  const given = await searchParams;
  const { filter, page } = await loadForStaff('read-own-record', async (deps, actor) => {
    const input = ledgerInput.parse(given);
    return { filter: input, page: await listLedger(deps, actor, input) };
  });
  return <LedgerView key={JSON.stringify(filter)} page={page} filter={filter} />;
}
