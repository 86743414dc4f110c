import { explainInput } from '@/contracts/explain';
import { handle } from '@/server/http/handle';
import { seeAs } from '@/server/services/policy/see-as';

export const POST = handle('look', explainInput, seeAs);
