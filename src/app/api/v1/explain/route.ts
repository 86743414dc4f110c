import { explainInput } from '@/contracts/explain';
import { handle } from '@/server/http/handle';
import { explainAccess } from '@/server/services/policy/explain-access';

export const POST = handle('look', explainInput, explainAccess);
