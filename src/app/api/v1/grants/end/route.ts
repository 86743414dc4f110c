import { changeEndInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { changeEnd } from '@/server/services/change-access';

export const POST = handle('change-access', changeEndInput, changeEnd);
