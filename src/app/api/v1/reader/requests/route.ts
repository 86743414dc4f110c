import { askInput } from '@/contracts/requests';
import { handle } from '@/server/http/handle';
import { askForMore } from '@/server/services/requests/ask-for-more';

export const POST = handle('reader', askInput, askForMore);
