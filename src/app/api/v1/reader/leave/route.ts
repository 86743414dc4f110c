import { nothing } from '@/contracts/nothing';
import { handle } from '@/server/http/handle';
import { json } from '@/server/http/respond';
import { deviceCookie } from '@/server/http/session';
import { leaveDevice } from '@/server/services/reading/own-devices';

export const POST = handle('reader', nothing, leaveDevice, (result, { publicUrl }) =>
  json(result, 200, { 'set-cookie': deviceCookie('', publicUrl, 0) }),
);
