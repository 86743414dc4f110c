import { readingAidsInput } from '@/contracts/access';
import { handle } from '@/server/http/handle';
import { setReadingAids } from '@/server/services/policy/reading-aids';

export const POST = handle('change-access', readingAidsInput, setReadingAids);
