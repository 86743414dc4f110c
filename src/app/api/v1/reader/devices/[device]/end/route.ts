import { deviceInput } from '@/contracts/sent';
import { handle } from '@/server/http/handle';
import { endOwnDevice } from '@/server/services/reading/own-devices';

export const POST = handle('reader', deviceInput, endOwnDevice);
