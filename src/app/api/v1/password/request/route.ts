import { passwordMailInput } from '@/contracts/identity';
import { handle } from '@/server/http/handle';
import { requestPassword } from '@/server/services/staff/manage-staff';

export const POST = handle('stranger', passwordMailInput, requestPassword);
