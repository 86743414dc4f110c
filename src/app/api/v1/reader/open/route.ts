import { openInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { openDocument } from '@/server/services/reading/open-document';

export const POST = handle('reader', openInput, openDocument);
