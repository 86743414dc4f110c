import { putNoticeInput } from '@/contracts/reader-notice';
import { handle } from '@/server/http/handle';
import { putNotice } from '@/server/services/reading/reader-notice';

export const POST = handle('settings', putNoticeInput, putNotice);
