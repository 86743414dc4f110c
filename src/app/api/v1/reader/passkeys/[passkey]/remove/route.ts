import { passkeyIdInput } from '@/contracts/passkeys';
import { handle } from '@/server/http/handle';
import { removeOwnPasskey } from '@/server/services/reading/passkeys';

export const POST = handle('reader', passkeyIdInput, removeOwnPasskey);
