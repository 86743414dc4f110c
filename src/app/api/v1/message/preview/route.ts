import { previewMailInput } from '@/contracts/message';
import { handle } from '@/server/http/handle';
import { previewMail } from '@/server/services/dispatching/preview-mail';

export const POST = handle('dispatch', previewMailInput, previewMail);
