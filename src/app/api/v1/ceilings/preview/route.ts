import { ceilingInput } from '@/contracts/ceiling';
import { handle } from '@/server/http/handle';
import { previewCeiling } from '@/server/services/policy/manage-ceilings';

export const POST = handle('look', ceilingInput, previewCeiling);
