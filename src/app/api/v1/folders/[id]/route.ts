import { changeFolderInput, folderInput } from '@/contracts/folder';
import { handle } from '@/server/http/handle';
import { changeFolder, removeFolder } from '@/server/services/filing/manage-filing';

export const POST = handle('protect', changeFolderInput, changeFolder);
export const DELETE = handle('protect', folderInput, removeFolder);
