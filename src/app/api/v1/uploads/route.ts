import { beginUploadInput } from '@/contracts/document';
import { handle } from '@/server/http/handle';
import { beginUpload } from '@/server/services/begin-upload';

export const POST = handle('protect', beginUploadInput, beginUpload);
