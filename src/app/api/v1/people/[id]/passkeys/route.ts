import { personIdInput } from '@/contracts/people';
import { handle } from '@/server/http/handle';
import { removePasskeysOf } from '@/server/services/reading/passkeys';

export const DELETE = handle('block', personIdInput, removePasskeysOf);
