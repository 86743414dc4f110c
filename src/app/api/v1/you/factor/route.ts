import { nothing } from '@/contracts/nothing';
import { confirmFactorInput } from '@/contracts/identity';
import { handle } from '@/server/http/handle';
import { confirmFactor, removeFactor } from '@/server/services/staff/prove-staff';

export const POST = handle('staff', confirmFactorInput, confirmFactor);
export const DELETE = handle('staff', nothing, removeFactor);
