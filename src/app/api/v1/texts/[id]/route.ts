import { textInput } from '@/contracts/saved-texts';
import { handle } from '@/server/http/handle';
import { removeText } from '@/server/services/dispatching/saved-texts';

export const DELETE = handle('dispatch', textInput, removeText);
