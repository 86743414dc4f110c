import 'server-only';
import { pageInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { bytes, bytesBeside, json, pointsHeader } from '@/server/http/respond';
import { renderPage } from '@/server/services/reading/read-pages';

/** One page of an open as a picture. */
export const pagePicture = handle('page-reader', pageInput, renderPage, (result) =>
  'outcome' in result
    ? json(result, 403)
    : bytes(result.bytes, result.type, pointsHeader(result.points)),
);

/** The same where it is answered before the framework. */
export const pagePictureAside = handle('page-reader', pageInput, renderPage, (result) =>
  'outcome' in result
    ? json(result, 403)
    : bytesBeside(result.bytes, result.type, pointsHeader(result.points)),
);
