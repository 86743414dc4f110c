import { findInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { json } from '@/server/http/respond';
import { findWords } from '@/server/services/reading/read-pages';

export const POST = handle('reader', findInput, findWords, (result) =>
  json(result, 'outcome' in result ? 403 : 200),
);
