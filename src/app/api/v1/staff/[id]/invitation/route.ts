import { inviteAgainInput } from '@/contracts/staff';
import { handle } from '@/server/http/handle';
import { mailStaffAgain } from '@/server/services/staff/manage-staff';

export const POST = handle('manage-staff', inviteAgainInput, mailStaffAgain);
