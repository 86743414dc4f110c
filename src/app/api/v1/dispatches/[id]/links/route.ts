import { replaceLinkInput } from '@/contracts/dispatch';
import { handle } from '@/server/http/handle';
import { replaceLink } from '@/server/services/dispatching/replace-link';

export const POST = handle('dispatch', replaceLinkInput, replaceLink);
