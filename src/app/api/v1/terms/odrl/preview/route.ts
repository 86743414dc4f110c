import { importTermsInput } from '@/contracts/odrl';
import { handle } from '@/server/http/handle';
import { previewTerms } from '@/server/services/access/exchange-terms';

export const POST = handle('look', importTermsInput, previewTerms);
