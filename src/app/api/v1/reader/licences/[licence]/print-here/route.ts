import { printInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { json } from '@/server/http/respond';
import { permitPrint } from '@/server/services/reading/own-copies';

export const POST = handle('reader', printInput, permitPrint, (result) =>
  json(result, result.outcome === 'refused' ? 403 : 200),
);
