import { destroyKeyInput } from '@/contracts/access';
import { handle } from '@/server/http/handle';
import { destroyKey } from '@/server/services/destroy-key';

export const POST = handle('destroy-key', destroyKeyInput, destroyKey);
