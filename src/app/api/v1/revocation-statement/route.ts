import { afterInput } from '@/contracts/after-revocation';
import { handle } from '@/server/http/handle';
import { asDownload, bytes } from '@/server/http/respond';
import { revocationStatement } from '@/server/services/ledger/revocation-statement';

export const GET = handle('read-own-record', afterInput, revocationStatement, ({ name, text }) =>
  bytes(new TextEncoder().encode(text), 'text/plain; charset=utf-8', asDownload(name)),
);
