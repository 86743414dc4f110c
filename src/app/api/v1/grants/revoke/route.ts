import { revokeGrantsInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { revokeGrants } from '@/server/services/access/change-access';

export const POST = handle('change-access', revokeGrantsInput, revokeGrants);
