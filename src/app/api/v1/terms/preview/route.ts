import { previewTermsInput } from '@/contracts/kept-terms';
import { handle } from '@/server/http/handle';
import { previewKeptTerms } from '@/server/services/access/change-kept-terms';

export const POST = handle('look', previewTermsInput, previewKeptTerms);
