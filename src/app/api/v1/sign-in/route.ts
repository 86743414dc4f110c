import { signInInput } from '@/contracts/organisation';
import { handleIdentity } from '@/server/http/handle';
import { originOf } from '@/server/http/session';
import { signIn } from '@/server/services/sign-in';

export const POST = handleIdentity('stranger', signInInput, async ({ deps, identity }, input, request) => ({
  body: {},
  cookies: await signIn(deps, identity, originOf(request.headers), request.headers, input),
}));
