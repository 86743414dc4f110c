import { setUpInput } from '@/contracts/organisation';
import { handleIdentity } from '@/server/http/handle';
import { setUpOrganisation } from '@/server/services/staff/set-up-organisation';

export const POST = handleIdentity(
  'stranger',
  setUpInput,
  async ({ deps, identity }, _actor, input) => {
    await setUpOrganisation(deps, identity, input);
    return { body: {}, cookies: [] };
  },
);
