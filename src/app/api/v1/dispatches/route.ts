import { dispatchInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { sendDocuments } from '@/server/services/dispatching/send-documents';

export const POST = handle('dispatch', dispatchInput, sendDocuments);
