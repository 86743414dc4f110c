import { viewInput } from '@/contracts/views';
import { handle } from '@/server/http/handle';
import { dropView } from '@/server/services/staff/saved-views';

export const DELETE = handle('look', viewInput, dropView);
