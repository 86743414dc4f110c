import { licenceInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { json } from '@/server/http/respond';
import { readOutline } from '@/server/services/reading/read-pages';

export const GET = handle('reader', licenceInput, readOutline, (result) =>
  json(result, 'outcome' in result ? 403 : 200),
);
