import { sendRevisionInput } from '@/contracts/revisions';
import { bodyOf } from '@/server/http/body';
import { handle } from '@/server/http/handle';
import { json } from '@/server/http/respond';
import { sendRevision } from '@/server/services/reading/send-revision';

export const POST = handle(
  'reader',
  sendRevisionInput,
  (deps, actor, input, request) =>
    sendRevision(deps, actor, input, {
      bytes: Number(request.headers.get('content-length') ?? 0),
      body: bodyOf(request),
    }),
  (result) => json(result, 'outcome' in result ? 403 : 200),
);
