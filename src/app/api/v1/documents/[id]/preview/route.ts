import { previewPageInput } from '@/contracts/explain';
import { handle } from '@/server/http/handle';
import { bytes, pointsHeader } from '@/server/http/respond';
import { previewPage } from '@/server/services/documents/preview-page';

export const POST = handle('dispatch', previewPageInput, previewPage, (picture) =>
  bytes(picture.bytes, picture.type, pointsHeader(picture.points)),
);
