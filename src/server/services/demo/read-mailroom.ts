import 'server-only';
import { simpleParser } from 'mailparser';
import {
  findMailroomMessage,
  listMailroom,
  mailroomAddresses,
} from '@/server/repositories/mailing/mail-repository';
import { isMailboxClosed } from '@/server/repositories/mailing/closed-mailboxes';
import type { Deps } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { needDemo } from '@/server/services/demo/need-demo';

const MOST = 200;

/** What the demo's mail server was handed, the newest first. */
export async function readMailroom(deps: Deps, input: { readonly address?: string | undefined }) {
  await needDemo(deps);
  const [messages, addresses] = await Promise.all([
    listMailroom(deps.db.read, input.address, MOST),
    mailroomAddresses(deps.db.read),
  ]);
  return { messages, addresses };
}

/** One message, as MIME text. */
export async function readMessage(deps: Deps, input: { readonly id: string }) {
  await needDemo(deps);
  const message = await findMailroomMessage(deps.db.read, input.id);
  if (message === null) throw new ServiceError('no-message');
  return message;
}

/** One file of a message. */
export async function readAttachment(
  deps: Deps,
  input: { readonly id: string; readonly index: number },
): Promise<{ readonly name: string; readonly content: Uint8Array }> {
  const { attachments } = await simpleParser((await readMessage(deps, input)).raw);
  const found = attachments[input.index];
  if (found === undefined) throw new ServiceError('no-attachment');
  return { name: found.filename ?? 'file', content: found.content };
}

/** The mailroom as a page shows it, with one message opened as its text part. */
export async function viewMailroom(
  deps: Deps,
  input: { readonly address?: string | undefined; readonly message?: string | undefined },
) {
  const { messages, addresses } = await readMailroom(deps, input);
  const address = input.address ?? null;
  const isClosed = address !== null && (await isMailboxClosed(deps.db.read, address));
  const mailbox = { messages, addresses, address, isClosed };
  const message =
    input.message === undefined ? null : await readMessage(deps, { id: input.message });
  if (message === null) return { ...mailbox, open: null };
  const { text = '', attachments } = await simpleParser(message.raw);
  const open = {
    id: message.id,
    toAddress: message.toAddress,
    fromAddress: message.fromAddress,
    subject: message.subject,
    receivedAt: message.receivedAt,
    text,
    files: attachments.map(({ filename, size }) => ({ name: filename ?? 'file', bytes: size })),
  };
  return { ...mailbox, open };
}
