import { bringTermsInput } from '@/contracts/odrl';
import { handle } from '@/server/http/handle';
import { previewTerms } from '@/server/services/exchange-terms';

export const POST = handle('look', bringTermsInput, previewTerms);
