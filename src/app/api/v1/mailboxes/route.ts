import { closeMailboxInput } from '@/contracts/mailroom';
import { handle } from '@/server/http/handle';
import { closeMailbox } from '@/server/services/demo/close-mailbox';

export const POST = handle('read-mailroom', closeMailboxInput, closeMailbox);
