import { keepViewInput } from '@/contracts/views';
import { handle } from '@/server/http/handle';
import { keepView } from '@/server/services/staff/saved-views';

export const POST = handle('look', keepViewInput, keepView);
