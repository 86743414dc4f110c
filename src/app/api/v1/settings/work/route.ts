import { workChange } from '@/contracts/settings';
import { handle } from '@/server/http/handle';
import { putWorkSettings } from '@/server/services/base/work-settings';

export const POST = handle('settings', workChange, putWorkSettings);
