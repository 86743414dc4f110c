import { ceilingInput } from '@/contracts/ceiling';
import { handle } from '@/server/http/handle';
import { putCeiling } from '@/server/services/policy/manage-ceilings';

export const POST = handle('settings', ceilingInput, putCeiling);
