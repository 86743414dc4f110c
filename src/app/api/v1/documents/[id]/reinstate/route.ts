import { revokeDocumentInput } from '@/contracts/document';
import { handle } from '@/server/http/handle';
import { reinstateDocument } from '@/server/services/access/revoke-document';

export const POST = handle('change-access', revokeDocumentInput, reinstateDocument);
