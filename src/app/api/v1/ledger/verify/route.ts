import { verifyInput } from '@/contracts/ledger';
import { handle } from '@/server/http/handle';
import { byteStream } from '@/server/http/respond';
import { verifyOnScreen } from '@/server/services/ledger/verify-on-screen';

export const POST = handle('read-record', verifyInput, verifyOnScreen, (lines) =>
  byteStream(lines, 'application/x-ndjson', 'progress.ndjson'),
);
