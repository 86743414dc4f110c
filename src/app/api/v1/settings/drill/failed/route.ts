import { nothing } from '@/contracts/nothing';
import { handle } from '@/server/http/handle';
import { failDrill } from '@/server/services/keys/manage-keys';

export const POST = handle('settings', nothing, failDrill);
