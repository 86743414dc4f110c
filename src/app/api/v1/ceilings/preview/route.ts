import { ceilingInput } from '@/contracts/ceiling';
import { handle } from '@/server/http/handle';
import { previewCeiling } from '@/server/services/manage-ceilings';

export const POST = handle('look', ceilingInput, previewCeiling);
