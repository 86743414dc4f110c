import { z } from 'zod';

export const messageInput = z.object({ id: z.string().max(40) });
export const attachmentInput = z.object({
  id: z.string().max(40),
  index: z.coerce.number().int().min(0).max(100),
});
export const mailroomInput = z.object({
  address: z.string().max(254).optional(),
  message: z.string().max(40).optional(),
});
/** Closes a mailbox of the demo's mail server, or opens it again. */
export const closeMailboxInput = z.object({ address: z.email().max(254), closed: z.boolean() });
export type CloseMailboxInput = z.infer<typeof closeMailboxInput>;
