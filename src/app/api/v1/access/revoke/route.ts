import { scopedInput } from '@/contracts/access';
import { handle } from '@/server/http/handle';
import { cutAccess } from '@/server/services/cut-access';

export const POST = handle('cut-widely', scopedInput, cutAccess);
