import { groupInput } from '@/contracts/people';
import { handle } from '@/server/http/handle';
import { removeGroup } from '@/server/services/people/manage-groups';

export const DELETE = handle('dispatch', groupInput, removeGroup);
