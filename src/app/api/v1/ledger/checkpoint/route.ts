import { nothing } from '@/contracts/nothing';
import { handle } from '@/server/http/handle';
import { asDownload, bytes } from '@/server/http/respond';
import { newestCheckpoint } from '@/server/services/ledger/verify-on-screen';

export const GET = handle('read-record', nothing, newestCheckpoint, (text) =>
  bytes(new TextEncoder().encode(text), 'text/plain; charset=utf-8', asDownload('checkpoint.txt')),
);
