import { importPeopleInput } from '@/contracts/people-exchange';
import { handle } from '@/server/http/handle';
import { previewPeople } from '@/server/services/people/exchange-people';

// It only looks; `block` is what administrators alone hold over people.
export const POST = handle('block', importPeopleInput, previewPeople);
