import { accessThenInput } from '@/contracts/access-then';
import { handle } from '@/server/http/handle';
import { whoCouldOpen } from '@/server/services/policy/who-could-open';

export const POST = handle('look', accessThenInput, whoCouldOpen);
