import { scopedInput } from '@/contracts/access';
import { handle } from '@/server/http/handle';
import { previewRevoke } from '@/server/services/access/revoke-access';

export const POST = handle('change-access', scopedInput, previewRevoke);
