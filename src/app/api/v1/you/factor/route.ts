import { nothing } from '@/contracts/nothing';
import { confirmFactorInput } from '@/contracts/staff';
import { handle } from '@/server/http/handle';
import { confirmFactor, removeFactor } from '@/server/services/staff/prove-staff';

export const POST = handle('staff', confirmFactorInput, confirmFactor);
export const DELETE = handle('staff', nothing, removeFactor);
