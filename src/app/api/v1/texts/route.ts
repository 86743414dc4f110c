import { putTextInput } from '@/contracts/saved-texts';
import { handle } from '@/server/http/handle';
import { putText } from '@/server/services/dispatching/saved-texts';

export const POST = handle('dispatch', putTextInput, putText);
