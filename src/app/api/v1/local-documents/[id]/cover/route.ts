import { localCoverInput } from '@/contracts/local-document';
import { handle } from '@/server/http/handle';
import { coverForLocal } from '@/server/services/documents/local-document';

export const POST = handle('protect', localCoverInput, coverForLocal);
