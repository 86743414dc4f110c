import { putTermsInput } from '@/contracts/kept-terms';
import { handle } from '@/server/http/handle';
import { putTerms } from '@/server/services/access/change-kept-terms';

export const POST = handle('settings', putTermsInput, putTerms);
