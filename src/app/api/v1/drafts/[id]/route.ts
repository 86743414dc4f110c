import { draftInput } from '@/contracts/draft';
import { handle } from '@/server/http/handle';
import { discardDraft } from '@/server/services/keep-draft';

export const DELETE = handle('dispatch', draftInput, discardDraft);
