import { peopleAtInput } from '@/contracts/recipients';
import { handle } from '@/server/http/handle';
import { listPeopleAt } from '@/server/services/dispatching/suggest-recipients';

export const GET = handle('dispatch', peopleAtInput, listPeopleAt);
