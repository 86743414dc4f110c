import { putRuleInput } from '@/contracts/rules';
import { handle } from '@/server/http/handle';
import { putRule } from '@/server/services/policy/manage-rules';

export const POST = handle('settings', putRuleInput, putRule);
