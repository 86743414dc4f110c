import { demoInput } from '@/contracts/demo';
import { handleIdentity } from '@/server/http/handle';
import { deviceCookie, pretenceCookie, pretenceOf } from '@/server/http/session';
import { changeDemo } from '@/server/services/demo/change-demo';

export const POST = handleIdentity(
  'read-mailroom',
  demoInput,
  async (container, actor, input, request) => {
    const { deps } = container;
    const body = await changeDemo(deps, actor, input);
    const before = pretenceOf(container, request.headers);
    const { network = before.network, agent = before.agent } = input;
    // Somebody else's device, or somebody else at this one: it has proven no address yet.
    const leaves = input.agent !== undefined ? [deviceCookie('', deps.publicUrl, 0)] : [];
    return { body, cookies: [pretenceCookie({ network, agent }, deps.publicUrl), ...leaves] };
  },
);
