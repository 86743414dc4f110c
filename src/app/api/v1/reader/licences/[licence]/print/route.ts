import { printInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { byteStream, json } from '@/server/http/respond';
import { printDocument } from '@/server/services/reading/take-copies';

export const POST = handle('reader', printInput, printDocument, (result) =>
  result.outcome === 'refused'
    ? json(result, 403)
    : byteStream(result.pieces, result.mediaType, result.name, result.bytes),
);
