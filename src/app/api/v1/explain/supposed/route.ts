import { supposeInput } from '@/contracts/explain';
import { handle } from '@/server/http/handle';
import { supposeAccess } from '@/server/services/policy/suppose-access';

export const POST = handle('dispatch', supposeInput, supposeAccess);
