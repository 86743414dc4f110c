import { attachmentInput } from '@/contracts/mailroom';
import { handle } from '@/server/http/handle';
import { asDownload, bytes } from '@/server/http/respond';
import { readAttachment } from '@/server/services/demo/read-mailroom';

export const GET = handle(
  'read-mailroom',
  attachmentInput,
  (deps, _actor, input) => readAttachment(deps, input),
  ({ name, content }) => bytes(content, 'application/octet-stream', asDownload(name)),
);
