import { scopedInput } from '@/contracts/access';
import { handle } from '@/server/http/handle';
import { revokeAccess } from '@/server/services/access/revoke-access';

export const POST = handle('revoke-widely', scopedInput, revokeAccess);
