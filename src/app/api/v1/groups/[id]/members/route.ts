import { changeMembersInput, groupInput } from '@/contracts/people';
import { handle } from '@/server/http/handle';
import { changeMembers, viewGroupAddresses } from '@/server/services/people/manage-groups';

export const GET = handle('dispatch', groupInput, viewGroupAddresses);
export const POST = handle('dispatch', changeMembersInput, changeMembers);
