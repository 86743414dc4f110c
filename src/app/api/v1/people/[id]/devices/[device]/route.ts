import { deviceOfPersonInput } from '@/contracts/sent';
import { handle } from '@/server/http/handle';
import { shutOutDevice } from '@/server/services/reading/own-devices';

export const DELETE = handle('block', deviceOfPersonInput, shutOutDevice);
