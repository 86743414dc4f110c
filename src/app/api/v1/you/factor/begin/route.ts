import { nothing } from '@/contracts/nothing';
import { handle } from '@/server/http/handle';
import { offerFactor } from '@/server/services/staff/prove-staff';

export const POST = handle('staff', nothing, offerFactor);
