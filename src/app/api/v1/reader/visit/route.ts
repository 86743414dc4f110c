import { visitInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { json } from '@/server/http/respond';
import { deviceCookie } from '@/server/http/session';
import { visitLink } from '@/server/services/reading/visit-link';

export const POST = handle('stranger', visitInput, visitLink, ({ deviceToken }, { publicUrl }) =>
  json({}, 200, { 'set-cookie': deviceCookie(deviceToken, publicUrl, null) }),
);
