import { suggestInput } from '@/contracts/recipients';
import { handle } from '@/server/http/handle';
import { suggestRecipients } from '@/server/services/dispatching/suggest-recipients';

export const GET = handle('dispatch', suggestInput, suggestRecipients);
