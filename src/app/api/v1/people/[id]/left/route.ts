import { leftInput } from '@/contracts/access';
import { handle } from '@/server/http/handle';
import { markLeft } from '@/server/services/people/mark-left';

export const POST = handle('block', leftInput, markLeft);
