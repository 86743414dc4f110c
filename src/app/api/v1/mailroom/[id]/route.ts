import { messageInput } from '@/contracts/mailroom';
import { handle } from '@/server/http/handle';
import { asDownload, bytes } from '@/server/http/respond';
import { readMessage } from '@/server/services/demo/read-mailroom';

export const GET = handle(
  'read-mailroom',
  messageInput,
  (deps, _actor, input) => readMessage(deps, input),
  (message) =>
    bytes(
      new TextEncoder().encode(message.raw),
      'message/rfc822',
      asDownload(`${message.subject}.eml`),
    ),
);
