import { changePersonInput } from '@/contracts/people';
import { handle } from '@/server/http/handle';
import { changePerson } from '@/server/services/people/manage-people';

export const POST = handle('dispatch', changePersonInput, changePerson);
