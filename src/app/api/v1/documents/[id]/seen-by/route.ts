import { seenByInput } from '@/contracts/comments';
import { handle } from '@/server/http/handle';
import { chooseSeenBy } from '@/server/services/comments/staff-comments';

export const POST = handle('change-access', seenByInput, chooseSeenBy);
