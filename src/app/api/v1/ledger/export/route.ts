import { ledgerInput } from '@/contracts/ledger';
import { handle } from '@/server/http/handle';
import { byteStream } from '@/server/http/respond';
import { exportLedger } from '@/server/services/ledger/list-entries';

export const GET = handle('read-own-record', ledgerInput, exportLedger, (rows) =>
  byteStream(rows, 'text/csv; charset=utf-8', 'ledger.csv'),
);
