import { passOnInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { passOn } from '@/server/services/access/pass-on';

export const POST = handle('reader', passOnInput, passOn);
