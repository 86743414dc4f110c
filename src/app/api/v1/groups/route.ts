import { putGroupInput } from '@/contracts/people';
import { handle } from '@/server/http/handle';
import { putGroup } from '@/server/services/people/manage-groups';

export const POST = handle('dispatch', putGroupInput, putGroup);
