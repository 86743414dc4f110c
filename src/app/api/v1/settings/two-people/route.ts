import { twoPeopleInput } from '@/contracts/keys';
import { handle } from '@/server/http/handle';
import { setTwoPeople } from '@/server/services/manage-keys';

export const POST = handle('settings', twoPeopleInput, setTwoPeople);
