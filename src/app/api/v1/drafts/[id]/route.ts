import { draftInput } from '@/contracts/draft';
import { handle } from '@/server/http/handle';
import { discardDraft } from '@/server/services/dispatching/keep-draft';

export const DELETE = handle('dispatch', draftInput, discardDraft);
