import { destroyKeysInput } from '@/contracts/keys';
import { handle } from '@/server/http/handle';
import { destroyKeys } from '@/server/services/documents/destroy-keys';

export const POST = handle('destroy-key', destroyKeysInput, destroyKeys);
