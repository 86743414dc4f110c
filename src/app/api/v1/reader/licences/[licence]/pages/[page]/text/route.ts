import { pageTextInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { json } from '@/server/http/respond';
import { readText } from '@/server/services/reading/read-pages';

export const GET = handle('reader', pageTextInput, readText, (result) =>
  json(result, 'outcome' in result ? 403 : 200),
);
