import { revokeGrantsInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { reinstateGrants } from '@/server/services/access/revoke-grants';

export const POST = handle('change-access', revokeGrantsInput, reinstateGrants);
