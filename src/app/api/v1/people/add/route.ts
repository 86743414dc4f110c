import { addToPeopleInput } from '@/contracts/add-people';
import { handle } from '@/server/http/handle';
import { addToPeople } from '@/server/services/people/add-to-people';

export const POST = handle('dispatch', addToPeopleInput, addToPeople);
