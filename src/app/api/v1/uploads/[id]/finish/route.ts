import { finishUploadInput } from '@/contracts/document';
import { handle } from '@/server/http/handle';
import { protectDocument } from '@/server/services/protect-document';

export const POST = handle('protect', finishUploadInput, protectDocument);
