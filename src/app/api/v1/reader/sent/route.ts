import { nothing } from '@/contracts/nothing';
import { handle } from '@/server/http/handle';
import { sentToYou } from '@/server/services/reading/sent-to-you';

export const GET = handle('reader', nothing, sentToYou);
