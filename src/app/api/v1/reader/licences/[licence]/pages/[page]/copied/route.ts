import { copiedInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { json } from '@/server/http/respond';
import { noteCopied } from '@/server/services/reading/read-pages';

export const POST = handle('reader', copiedInput, noteCopied, (result) =>
  json(result, 'outcome' in result ? 403 : 200),
);
