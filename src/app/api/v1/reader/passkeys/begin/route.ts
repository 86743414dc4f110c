import { beginPasskeyInput } from '@/contracts/passkeys';
import { handle } from '@/server/http/handle';
import { beginPasskey } from '@/server/services/reading/passkeys';

export const POST = handle('reader', beginPasskeyInput, beginPasskey);
