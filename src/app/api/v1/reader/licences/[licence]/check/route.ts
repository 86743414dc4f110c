import { licenceInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { checkOpen } from '@/server/services/reading/watch-open';

export const GET = handle('reader', licenceInput, checkOpen);
