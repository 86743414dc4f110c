import { previewTermsInput } from '@/contracts/saved-terms';
import { handle } from '@/server/http/handle';
import { previewSavedTerms } from '@/server/services/access/change-saved-terms';

export const POST = handle('look', previewTermsInput, previewSavedTerms);
