import { changeGrantsInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { changeGrants } from '@/server/services/access/change-grants';

export const POST = handle('change-access', changeGrantsInput, changeGrants);
