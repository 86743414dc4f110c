import { markingInput } from '@/contracts/marking';
import { handle } from '@/server/http/handle';
import { removeMarking } from '@/server/services/filing/manage-filing';

export const DELETE = handle('settings', markingInput, removeMarking);
