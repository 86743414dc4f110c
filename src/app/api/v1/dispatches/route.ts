import { dispatchInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { dispatchDocuments } from '@/server/services/dispatch-documents';

export const POST = handle('dispatch', dispatchInput, dispatchDocuments);
