import { requestCodeInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { requestCode } from '@/server/services/reading/prove-address';

export const POST = handle('stranger', requestCodeInput, requestCode);
