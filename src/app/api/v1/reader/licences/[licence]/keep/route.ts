import { licenceInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { byteStream, json, markedHeader } from '@/server/http/respond';
import { keepDocument } from '@/server/services/reading/take-copies';

export const POST = handle('reader', licenceInput, keepDocument, (result) =>
  result.outcome === 'refused'
    ? json(result, 403)
    : byteStream(result.pieces, result.mediaType, result.name, result.bytes, markedHeader(result)),
);
