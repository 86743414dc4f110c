import { giveInput, lackingInput } from '@/contracts/lacking';
import { handle } from '@/server/http/handle';
import { giveLacking, viewLacking } from '@/server/services/dispatching/give-lacking';

export const GET = handle('dispatch', lackingInput, viewLacking);
export const POST = handle('dispatch', giveInput, giveLacking);
