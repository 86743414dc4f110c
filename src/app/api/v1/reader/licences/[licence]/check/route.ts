import { licenceInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { checkOpen } from '@/server/services/reading/read-pages';

export const GET = handle('reader', licenceInput, checkOpen);
