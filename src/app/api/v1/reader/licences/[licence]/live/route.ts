import { licenceInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { eventStream } from '@/server/http/respond';
import { watchOpen } from '@/server/services/reading/watch-open';

export const GET = handle(
  'reader',
  licenceInput,
  (deps, actor, input) => eventStream((send) => watchOpen(deps, actor, input, send), 'changed'),
  (response) => response,
);
