import { putMarkingInput } from '@/contracts/marking';
import { handle } from '@/server/http/handle';
import { putMarking } from '@/server/services/filing/manage-filing';

export const POST = handle('settings', putMarkingInput, putMarking);
