import { addDocumentsInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { addDocuments } from '@/server/services/dispatching/add-documents';

export const POST = handle('dispatch', addDocumentsInput, addDocuments);
