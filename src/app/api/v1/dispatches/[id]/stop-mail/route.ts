import { dispatchPageInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { stopMail } from '@/server/services/dispatching/mail-progress';

export const POST = handle('dispatch', dispatchPageInput, stopMail);
