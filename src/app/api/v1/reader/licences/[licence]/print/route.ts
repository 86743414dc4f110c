import { printInput } from '@/contracts/reader';
import { handle } from '@/server/http/handle';
import { asDownload, bytes, json } from '@/server/http/respond';
import { printDocument } from '@/server/services/read-pages';

export const POST = handle('reader', printInput, printDocument, (result) => ('outcome' in result ? json(result, 403) : bytes(result.bytes, 'application/pdf', asDownload(result.name))));
