import { heldInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { hastenHeld } from '@/server/services/dispatching/hold-dispatch';

export const POST = handle('dispatch', heldInput, hastenHeld);
