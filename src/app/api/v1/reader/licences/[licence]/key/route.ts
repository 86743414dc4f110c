import { takeKeyInput } from '@/contracts/own-machine';
import { handle } from '@/server/http/handle';
import { json } from '@/server/http/respond';
import { takeKey } from '@/server/services/reading/take-key';

export const POST = handle('reader', takeKeyInput, takeKey, (result) =>
  json(result, result.outcome === 'refused' ? 403 : 200),
);
