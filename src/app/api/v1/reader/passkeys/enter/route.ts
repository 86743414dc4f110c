import { enterByPasskeyInput } from '@/contracts/passkeys';
import { handle } from '@/server/http/handle';
import { json } from '@/server/http/respond';
import { deviceCookie } from '@/server/http/session';
import { enterByPasskey } from '@/server/services/reading/enter-by-passkey';

export const POST = handle(
  'stranger',
  enterByPasskeyInput,
  enterByPasskey,
  ({ deviceToken, maxAge, address }, { publicUrl }) =>
    json({ address }, 200, { 'set-cookie': deviceCookie(deviceToken, publicUrl, maxAge) }),
);
