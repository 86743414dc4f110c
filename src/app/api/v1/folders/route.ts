import { makeFolderInput } from '@/contracts/folder';
import { handle } from '@/server/http/handle';
import { makeFolder } from '@/server/services/filing/manage-filing';

export const POST = handle('protect', makeFolderInput, makeFolder);
