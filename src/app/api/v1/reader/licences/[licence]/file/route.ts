import { licenceInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { byteStream, json } from '@/server/http/respond';
import { takeFile } from '@/server/services/reading/take-file';

export const POST = handle('reader', licenceInput, takeFile, (result) =>
  result.outcome === 'refused'
    ? json(result, 403)
    : byteStream(result.read(), result.mediaType, result.name, result.bytes),
);
