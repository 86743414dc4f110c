import { noticeChange } from '@/contracts/notices';
import { handle } from '@/server/http/handle';
import { chooseNotices } from '@/server/services/notice-choices';

export const POST = handle('staff', noticeChange, chooseNotices);
