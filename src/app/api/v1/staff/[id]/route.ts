import { changeStaffInput } from '@/contracts/staff';
import { handle } from '@/server/http/handle';
import { changeStaff } from '@/server/services/staff/manage-staff';

export const POST = handle('manage-staff', changeStaffInput, changeStaff);
