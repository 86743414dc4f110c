import { noticeChange } from '@/contracts/notices';
import { handle } from '@/server/http/handle';
import { chooseNotices } from '@/server/services/staff/notice-choices';

export const POST = handle('staff', noticeChange, chooseNotices);
