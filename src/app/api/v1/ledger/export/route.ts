import { ledgerInput } from '@/contracts/ledger';
import { handle } from '@/server/http/handle';
import { textStream } from '@/server/http/respond';
import { exportLedger } from '@/server/services/list-entries';

export const GET = handle(
  'read-record',
  ledgerInput,
  (deps, actor, input) => Promise.resolve(exportLedger(deps, actor, input)),
  (lines) => textStream(lines, 'text/csv; charset=utf-8', 'ledger.csv'),
);
