import { addPeopleInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { addPeople } from '@/server/services/dispatching/dispatch-documents';

export const POST = handle('dispatch', addPeopleInput, addPeople);
