import { keepViewInput } from '@/contracts/ledger';
import { handle } from '@/server/http/handle';
import { keepView } from '@/server/services/filing/manage-filing';

export const POST = handle('read-own-record', keepViewInput, keepView);
