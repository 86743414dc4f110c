import { putTermsInput } from '@/contracts/saved-terms';
import { handle } from '@/server/http/handle';
import { putTerms } from '@/server/services/access/change-saved-terms';

export const POST = handle('settings', putTermsInput, putTerms);
