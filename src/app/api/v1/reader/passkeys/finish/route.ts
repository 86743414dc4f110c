import { finishPasskeyInput } from '@/contracts/passkeys';
import { handle } from '@/server/http/handle';
import { finishPasskey } from '@/server/services/reading/passkeys';

export const POST = handle('reader', finishPasskeyInput, finishPasskey);
