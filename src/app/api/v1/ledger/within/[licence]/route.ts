import { openEntriesInput } from '@/contracts/ledger';
import { handle } from '@/server/http/handle';
import { listOpen } from '@/server/services/ledger/list-entries';

export const GET = handle('read-own-record', openEntriesInput, listOpen);
