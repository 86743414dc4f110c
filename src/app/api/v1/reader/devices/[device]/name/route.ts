import { nameDeviceInput } from '@/contracts/sent';
import { handle } from '@/server/http/handle';
import { nameOwnDevice } from '@/server/services/reading/own-devices';

export const POST = handle('reader', nameDeviceInput, nameOwnDevice);
