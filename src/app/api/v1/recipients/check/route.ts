import { checkRecipientsInput } from '@/contracts/recipients';
import { handle } from '@/server/http/handle';
import { checkRecipients } from '@/server/services/dispatching/check-recipients';

export const POST = handle('dispatch', checkRecipientsInput, checkRecipients);
