import { beginLocalInput } from '@/contracts/local-document';
import { handle } from '@/server/http/handle';
import { beginLocal } from '@/server/services/documents/local-document';

export const POST = handle('protect', beginLocalInput, beginLocal);
