import { licenceInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { json } from '@/server/http/respond';
import { permitKeep } from '@/server/services/reading/own-copies';

export const POST = handle('reader', licenceInput, permitKeep, (result) =>
  json(result, result.outcome === 'refused' ? 403 : 200),
);
