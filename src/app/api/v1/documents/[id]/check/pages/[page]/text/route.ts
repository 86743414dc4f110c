import { checkPageInput } from '@/contracts/document';
import { handle } from '@/server/http/handle';
import { textChecked } from '@/server/services/documents/check-document';

export const GET = handle('look', checkPageInput, textChecked);
