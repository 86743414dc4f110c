import { handInInput } from '@/contracts/own-machine';
import { handle } from '@/server/http/handle';
import { handIn } from '@/server/services/reading/hand-in';

export const POST = handle('reader', handInInput, handIn);
