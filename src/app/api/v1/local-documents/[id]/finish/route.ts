import { finishLocalInput } from '@/contracts/local-document';
import { handle } from '@/server/http/handle';
import { protectLocal } from '@/server/services/documents/local-document';

export const POST = handle('protect', finishLocalInput, protectLocal);
