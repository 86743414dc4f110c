import { enterCodeInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { json } from '@/server/http/respond';
import { deviceCookie } from '@/server/http/session';
import { enterCode } from '@/server/services/reading/prove-address';

export const POST = handle(
  'stranger',
  enterCodeInput,
  enterCode,
  ({ deviceToken, maxAge }, { publicUrl }) =>
    json({}, 200, { 'set-cookie': deviceCookie(deviceToken, publicUrl, maxAge) }),
);
