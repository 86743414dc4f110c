import { replyInput } from '@/contracts/requests';
import { handle } from '@/server/http/handle';
import { replyToQuestion } from '@/server/services/requests/ask-back';

export const POST = handle('reader', replyInput, replyToQuestion);
