import { inviteInput } from '@/contracts/staff';
import { handle } from '@/server/http/handle';
import { inviteStaff } from '@/server/services/staff/manage-staff';

export const POST = handle('manage-staff', inviteInput, inviteStaff);
