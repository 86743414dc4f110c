import { grantsInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { previewRevoking } from '@/server/services/access/revoke-access';

export const POST = handle('change-access', grantsInput, previewRevoking);
