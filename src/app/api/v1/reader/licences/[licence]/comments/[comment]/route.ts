import { changeCommentInput } from '@/contracts/comments';
import { handle } from '@/server/http/handle';
import { json } from '@/server/http/respond';
import { changeOwnComment } from '@/server/services/comments/recipient-comments';

export const POST = handle('reader', changeCommentInput, changeOwnComment, (result) =>
  json(result, 'outcome' in result ? 403 : 200),
);
