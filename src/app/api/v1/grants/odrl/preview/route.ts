import { importTermsInput } from '@/contracts/odrl';
import { handle } from '@/server/http/handle';
import { previewGrants } from '@/server/services/dispatching/exchange-grants';

export const POST = handle('dispatch', importTermsInput, previewGrants);
