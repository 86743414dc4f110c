import { choosePasswordInput } from '@/contracts/staff';
import { handleIdentity } from '@/server/http/handle';
import { originOf } from '@/server/http/session';
import { choosePassword } from '@/server/services/manage-staff';

export const POST = handleIdentity('stranger', choosePasswordInput, async ({ deps, identity }, input, request) => {
  await choosePassword(deps, identity, originOf(request.headers), input);
  return { body: {}, cookies: [] };
});
