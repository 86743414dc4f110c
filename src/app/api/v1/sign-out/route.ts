import { nothing } from '@/contracts/nothing';
import { handleIdentity } from '@/server/http/handle';
import { needStaff } from '@/server/http/session';
import { signOut } from '@/server/services/sign-in';

export const POST = handleIdentity('staff', nothing, async (container, _input, request) => ({
  body: {},
  cookies: await signOut(container.deps, container.identity, await needStaff(container, request.headers), request.headers),
}));
