import { linkInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { switchOffLink } from '@/server/services/dispatching/change-link';

export const POST = handle('dispatch', linkInput, switchOffLink);
