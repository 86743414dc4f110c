import { nothing } from '@/contracts/nothing';
import { beginUploadInput } from '@/contracts/document';
import { handle } from '@/server/http/handle';
import { beginUpload, listUploads } from '@/server/services/documents/begin-upload';

export const POST = handle('protect', beginUploadInput, beginUpload);
export const GET = handle('protect', nothing, listUploads);
