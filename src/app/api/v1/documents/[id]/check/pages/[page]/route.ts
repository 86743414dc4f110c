import { checkPageInput } from '@/contracts/document';
import { handle } from '@/server/http/handle';
import { bytes, pointsHeader } from '@/server/http/respond';
import { checkPage } from '@/server/services/documents/check-document';

export const GET = handle('look', checkPageInput, checkPage, (picture) =>
  bytes(picture.bytes, picture.type, pointsHeader(picture.points)),
);
