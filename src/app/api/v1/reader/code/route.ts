import { requestCodeInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { requestCode } from '@/server/services/prove-address';

export const POST = handle('stranger', requestCodeInput, requestCode);
