import { commentInput } from '@/contracts/comments';
import { licenceInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { json } from '@/server/http/respond';
import { makeComment, readComments } from '@/server/services/comments/recipient-comments';

export const GET = handle('reader', licenceInput, readComments, (result) =>
  json(result, 'outcome' in result ? 403 : 200),
);
export const POST = handle('reader', commentInput, makeComment, (result) =>
  json(result, 'outcome' in result ? 403 : 200),
);
