import { defaultsInput } from '@/contracts/defaults';
import { handle } from '@/server/http/handle';
import { previewDefaults } from '@/server/services/policy/manage-defaults';

export const POST = handle('look', defaultsInput, previewDefaults);
