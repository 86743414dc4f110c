import { destroyKeyInput } from '@/contracts/access';
import { handle } from '@/server/http/handle';
import { destroyKey } from '@/server/services/documents/destroy-keys';

export const POST = handle('destroy-key', destroyKeyInput, destroyKey);
