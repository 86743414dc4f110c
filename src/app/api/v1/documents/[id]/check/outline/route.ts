import { documentInput } from '@/contracts/document';
import { handle } from '@/server/http/handle';
import { outlineChecked } from '@/server/services/documents/check-document';

export const GET = handle('look', documentInput, outlineChecked);
