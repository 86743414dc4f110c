import { finishUploadInput } from '@/contracts/document';
import { handle } from '@/server/http/handle';
import { protectDocument } from '@/server/services/documents/protect-document';

export const POST = handle('protect', finishUploadInput, protectDocument);
