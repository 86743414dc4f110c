import { addressInput, personIdInput } from '@/contracts/people';
import { handle } from '@/server/http/handle';
import { addAddress, dropAddress } from '@/server/services/people/same-person';

export const POST = handle('block', addressInput, addAddress);
export const DELETE = handle('block', personIdInput, dropAddress);
