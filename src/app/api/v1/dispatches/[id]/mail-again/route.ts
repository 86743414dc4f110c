import { mailAgainInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { mailAgain } from '@/server/services/dispatching/dispatch-documents';

export const POST = handle('dispatch', mailAgainInput, mailAgain);
