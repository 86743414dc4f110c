import { staffCommentInput } from '@/contracts/comments';
import { handle } from '@/server/http/handle';
import { changeCommentAsStaff } from '@/server/services/comments/staff-comments';

export const POST = handle('change-access', staffCommentInput, changeCommentAsStaff);
