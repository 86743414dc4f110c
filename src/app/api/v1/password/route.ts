import { choosePasswordInput } from '@/contracts/identity';
import { handleIdentity } from '@/server/http/handle';
import { choosePassword } from '@/server/services/staff/manage-staff';

export const POST = handleIdentity(
  'stranger',
  choosePasswordInput,
  async ({ deps, identity }, actor, input) => {
    await choosePassword(deps, identity, actor.from, input);
    return { body: {}, cookies: [] };
  },
);
