import { documentInput } from '@/contracts/document';
import { answerRevisionInput } from '@/contracts/revisions';
import { handle } from '@/server/http/handle';
import { answerRevision, documentRevisions } from '@/server/services/reading/answer-revision';

export const GET = handle('look', documentInput, documentRevisions);
export const POST = handle('change-access', answerRevisionInput, answerRevision);
