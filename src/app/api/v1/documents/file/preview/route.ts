import { fileInput } from '@/contracts/document';
import { handle } from '@/server/http/handle';
import { previewFiling } from '@/server/services/filing/preview-filing';

export const POST = handle('look', fileInput, previewFiling);
