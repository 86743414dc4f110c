import { stillReadableInput } from '@/contracts/still-readable';
import { handle } from '@/server/http/handle';
import { stillReadable } from '@/server/services/reading/still-readable';

export const GET = handle('read-own-record', stillReadableInput, stillReadable);
