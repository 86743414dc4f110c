import 'server-only';
import { simpleParser } from 'mailparser';
import { findMailroomMessage, listMailroom, mailroomAddresses } from '@/server/repositories/mail-repository';
import { findOrganisation } from '@/server/repositories/organisation-repository';
import type { Deps } from '@/server/services/deps';
import { ServiceError } from '@/server/services/errors';

const MOST = 200;

/** The mailroom exists on a database that was made as a demo, and nowhere else. */
async function needDemo(deps: Deps): Promise<void> {
  if ((await findOrganisation(deps.db.read))?.demo !== true) throw new ServiceError('NOT_FOUND', 'There is no such page.');
}

/** What the demo's mail server was handed, the newest first. */
export async function readMailroom(deps: Deps, input: { readonly address?: string | undefined }) {
  await needDemo(deps);
  const [messages, addresses] = await Promise.all([listMailroom(deps.db.read, input.address, MOST), mailroomAddresses(deps.db.read)]);
  return { messages, addresses };
}

/** One message, as MIME text. */
export async function readMessage(deps: Deps, input: { readonly id: string }) {
  await needDemo(deps);
  const message = await findMailroomMessage(deps.db.read, input.id);
  if (message === null) throw new ServiceError('NOT_FOUND', 'There is no such message.');
  return message;
}

/** The mailroom as a page shows it, with one message opened as its text part. */
export async function viewMailroom(deps: Deps, input: { readonly address?: string | undefined; readonly message?: string | undefined }) {
  const { messages, addresses } = await readMailroom(deps, input);
  const message = input.message === undefined ? null : await readMessage(deps, { id: input.message });
  const open = message === null ? null : { id: message.id, toAddress: message.toAddress, fromAddress: message.fromAddress, subject: message.subject, receivedAt: message.receivedAt, text: (await simpleParser(message.raw)).text ?? '' };
  return { messages, addresses, address: input.address ?? null, open };
}
