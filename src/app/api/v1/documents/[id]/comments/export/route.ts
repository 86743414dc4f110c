import { exportCommentsInput } from '@/contracts/comments';
import { handle } from '@/server/http/handle';
import { asDownload, bytes } from '@/server/http/respond';
import { exportComments } from '@/server/services/comments/export-comments';

export const GET = handle('look', exportCommentsInput, exportComments, (file) =>
  bytes(file.bytes, file.type, asDownload(file.name)),
);
