import { keepDraftInput } from '@/contracts/draft';
import { handle } from '@/server/http/handle';
import { keepDraft } from '@/server/services/dispatching/keep-draft';

export const POST = handle('dispatch', keepDraftInput, keepDraft);
