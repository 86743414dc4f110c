import { mailAgainInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { mailAgain } from '@/server/services/dispatching/mail-links';

export const POST = handle('dispatch', mailAgainInput, mailAgain);
