import { askBackInput } from '@/contracts/requests';
import { handle } from '@/server/http/handle';
import { askBack } from '@/server/services/requests/ask-back';

export const POST = handle('change-access', askBackInput, askBack);
