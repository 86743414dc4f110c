import { giveToInput, unreachedInput } from '@/contracts/lacking';
import { handle } from '@/server/http/handle';
import { giveTo, viewUnreached } from '@/server/services/dispatching/give-lacking';

export const GET = handle('dispatch', unreachedInput, viewUnreached);
export const POST = handle('dispatch', giveToInput, giveTo);
