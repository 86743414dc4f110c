import { blockInput } from '@/contracts/access';
import { handle } from '@/server/http/handle';
import { blockPerson } from '@/server/services/people/manage-people';

export const POST = handle('block', blockInput, blockPerson);
