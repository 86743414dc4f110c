import { checkFindInput } from '@/contracts/document';
import { handle } from '@/server/http/handle';
import { findChecked } from '@/server/services/documents/check-document';

export const POST = handle('look', checkFindInput, findChecked);
