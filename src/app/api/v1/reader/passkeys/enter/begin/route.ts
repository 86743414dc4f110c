import { nothing } from '@/contracts/nothing';
import { handle } from '@/server/http/handle';
import { beginEntering } from '@/server/services/reading/enter-by-passkey';

export const POST = handle('stranger', nothing, beginEntering);
