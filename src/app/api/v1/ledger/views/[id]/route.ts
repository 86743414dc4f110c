import { viewInput } from '@/contracts/ledger';
import { handle } from '@/server/http/handle';
import { dropView } from '@/server/services/filing/manage-filing';

export const DELETE = handle('read-own-record', viewInput, dropView);
