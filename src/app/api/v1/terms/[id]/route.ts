import { termsIdInput } from '@/contracts/saved-terms';
import { handle } from '@/server/http/handle';
import { removeTerms } from '@/server/services/filing/manage-filing';

export const DELETE = handle('settings', termsIdInput, removeTerms);
