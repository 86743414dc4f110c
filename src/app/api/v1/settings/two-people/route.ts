import { twoPeopleInput } from '@/contracts/keys';
import { handle } from '@/server/http/handle';
import { setTwoPeople } from '@/server/services/keys/manage-keys';

export const POST = handle('settings', twoPeopleInput, setTwoPeople);
