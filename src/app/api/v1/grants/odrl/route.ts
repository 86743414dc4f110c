import { bringGrantsInput } from '@/contracts/odrl';
import { handle } from '@/server/http/handle';
import { bringGrantsIn } from '@/server/services/dispatching/exchange-grants';

export const POST = handle('dispatch', bringGrantsInput, bringGrantsIn);
