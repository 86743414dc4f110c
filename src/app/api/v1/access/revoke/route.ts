import { scopedInput } from '@/contracts/access';
import { handle } from '@/server/http/handle';
import { cutAccess } from '@/server/services/access/cut-access';

export const POST = handle('cut-widely', scopedInput, cutAccess);
