import { scopedInput } from '@/contracts/access';
import { handle } from '@/server/http/handle';
import { previewCut } from '@/server/services/access/cut-access';

export const POST = handle('change-access', scopedInput, previewCut);
