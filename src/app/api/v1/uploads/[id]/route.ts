import { cancelUploadInput, partInput } from '@/contracts/document';
import { bodyOf } from '@/server/http/body';
import { handle } from '@/server/http/handle';
import { cancelUpload } from '@/server/services/documents/protect-document';
import { receivePart } from '@/server/services/documents/receive-part';

export const PUT = handle('protect', partInput, (deps, actor, input, request) =>
  receivePart(deps, actor, input, bodyOf(request)),
);
export const DELETE = handle('protect', cancelUploadInput, cancelUpload);
