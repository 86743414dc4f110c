import { listDocumentsInput } from '@/contracts/document';
import { handle } from '@/server/http/handle';
import { listDocuments } from '@/server/services/documents/list-documents';

export const GET = handle('look', listDocumentsInput, listDocuments);
