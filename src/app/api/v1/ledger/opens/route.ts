import { opensInput } from '@/contracts/opens';
import { handle } from '@/server/http/handle';
import { byteStream } from '@/server/http/respond';
import { exportOpens } from '@/server/services/ledger/count-opens';

export const GET = handle('read-own-record', opensInput, exportOpens, (rows) =>
  byteStream(rows, 'text/csv; charset=utf-8', 'opens.csv'),
);
