import { addPeopleInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { addPeople } from '@/server/services/dispatching/add-people';

export const POST = handle('dispatch', addPeopleInput, addPeople);
