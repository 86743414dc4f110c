import { offlineCommentsInput } from '@/contracts/comments';
import { handle } from '@/server/http/handle';
import { handInComments } from '@/server/services/comments/offline-comments';

export const POST = handle('reader', offlineCommentsInput, handInComments);
