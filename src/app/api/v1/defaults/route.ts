import { defaultsInput } from '@/contracts/defaults';
import { handle } from '@/server/http/handle';
import { putDefaults } from '@/server/services/policy/manage-defaults';

export const POST = handle('settings', defaultsInput, putDefaults);
