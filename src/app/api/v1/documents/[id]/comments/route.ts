import { answerCommentInput, documentCommentsInput } from '@/contracts/comments';
import { handle } from '@/server/http/handle';
import { answerComment, documentComments } from '@/server/services/comments/staff-comments';

export const GET = handle('look', documentCommentsInput, documentComments);
export const POST = handle('change-access', answerCommentInput, answerComment);
