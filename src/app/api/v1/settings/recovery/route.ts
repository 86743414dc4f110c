import { recoveryKeyInput } from '@/contracts/keys';
import { handle } from '@/server/http/handle';
import { changeRecoveryKey } from '@/server/services/keys/manage-keys';

export const POST = handle('settings', recoveryKeyInput, changeRecoveryKey);
