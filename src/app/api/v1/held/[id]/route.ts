import { heldInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { stopHeld } from '@/server/services/dispatching/hold-dispatch';

export const DELETE = handle('dispatch', heldInput, stopHeld);
