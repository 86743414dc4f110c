import { drillInput } from '@/contracts/keys';
import { nothing } from '@/contracts/nothing';
import { handle } from '@/server/http/handle';
import { beginDrill, finishDrill } from '@/server/services/keys/manage-keys';

export const GET = handle('settings', nothing, beginDrill);
export const POST = handle('settings', drillInput, finishDrill);
