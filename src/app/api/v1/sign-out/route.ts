import { nothing } from '@/contracts/nothing';
import { handleIdentity } from '@/server/http/handle';
import { signOut } from '@/server/services/staff/sign-in';

export const POST = handleIdentity(
  'staff',
  nothing,
  async ({ deps, identity }, actor, _input, request) => ({
    body: {},
    cookies: await signOut(deps, identity, actor, request.headers),
  }),
);
