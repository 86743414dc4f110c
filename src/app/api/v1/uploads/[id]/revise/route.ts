import { finishRevisionInput } from '@/contracts/document';
import { handle } from '@/server/http/handle';
import { reviseDocument } from '@/server/services/documents/protect-document';

export const POST = handle('protect', finishRevisionInput, reviseDocument);
