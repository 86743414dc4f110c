import { changeEndsInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { changeEnds } from '@/server/services/change-access';

export const POST = handle('change-access', changeEndsInput, changeEnds);
