import { notePaperInput, paperInput } from '@/contracts/paper';
import { handle } from '@/server/http/handle';
import { notePaper, paperRegister } from '@/server/services/reading/paper-register';

export const GET = handle('look', paperInput, paperRegister);
export const POST = handle('change-access', notePaperInput, notePaper);
