import { listPeopleInput } from '@/contracts/people';
import { handle } from '@/server/http/handle';
import { listPeople } from '@/server/services/people/manage-people';

export const GET = handle('look', listPeopleInput, listPeople);
