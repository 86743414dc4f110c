import { dispatchPageInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { viewMailProgress } from '@/server/services/dispatching/mail-progress';

export const GET = handle('look', dispatchPageInput, viewMailProgress);
