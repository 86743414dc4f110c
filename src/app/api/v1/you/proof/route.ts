import { proofInput } from '@/contracts/identity';
import { handleIdentity } from '@/server/http/handle';
import { proveAgain } from '@/server/services/staff/prove-staff';

export const POST = handleIdentity(
  'staff',
  proofInput,
  async ({ deps, identity }, actor, input) => {
    await proveAgain(deps, identity, actor, input);
    return { body: {}, cookies: [] };
  },
);
