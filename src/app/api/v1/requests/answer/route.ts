import { answerInput } from '@/contracts/requests';
import { handle } from '@/server/http/handle';
import { answerRequests } from '@/server/services/requests/answer-requests';

export const POST = handle('change-access', answerInput, answerRequests);
