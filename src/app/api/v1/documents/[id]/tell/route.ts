import { tellInput } from '@/contracts/revisions';
import { handle } from '@/server/http/handle';
import { tellOfVersion } from '@/server/services/reading/answer-revision';

export const POST = handle('change-access', tellInput, tellOfVersion);
