import { senderLimitsInput } from '@/contracts/staff';
import { handle } from '@/server/http/handle';
import { changeSenderLimits } from '@/server/services/policy/sender-limits';

export const POST = handle('manage-staff', senderLimitsInput, changeSenderLimits);
