import { fileInput } from '@/contracts/document';
import { handle } from '@/server/http/handle';
import { fileDocuments } from '@/server/services/filing/file-documents';

export const POST = handle('protect', fileInput, fileDocuments);
