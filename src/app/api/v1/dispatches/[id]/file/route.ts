import { takeFileInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { byteStream } from '@/server/http/respond';
import { takeProtectedFile } from '@/server/services/documents/protected-files';

// Each taking is on the record, so it is asked for by POST: nothing that looks ahead fetches one.
export const POST = handle('dispatch', takeFileInput, takeProtectedFile, (file) =>
  byteStream(file.read(), file.mediaType, file.name, file.bytes),
);
