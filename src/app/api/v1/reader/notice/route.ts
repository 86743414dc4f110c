import { nothing } from '@/contracts/nothing';
import { acceptNoticeInput } from '@/contracts/reader-notice';
import { handle } from '@/server/http/handle';
import { acceptNotice, readNotice } from '@/server/services/reading/reader-notice';

export const GET = handle('reader', nothing, readNotice);
export const POST = handle('reader', acceptNoticeInput, acceptNotice);
