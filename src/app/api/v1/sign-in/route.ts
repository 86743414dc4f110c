import { signInInput } from '@/contracts/identity';
import { handleIdentity } from '@/server/http/handle';
import { signIn } from '@/server/services/staff/sign-in';

export const POST = handleIdentity(
  'stranger',
  signInInput,
  async ({ deps, identity }, actor, input, request) => ({
    body: {},
    cookies: await signIn(deps, identity, actor.from, request.headers, input),
  }),
);
