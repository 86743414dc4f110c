import { cancelUploadInput } from '@/contracts/document';
import { handle } from '@/server/http/handle';
import { lookAtUpload } from '@/server/services/documents/look-at-upload';

export const POST = handle('protect', cancelUploadInput, lookAtUpload);
