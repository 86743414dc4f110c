import 'server-only';
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

/** Whether this is a demo, for what only a demo shows. */
export async function isDemo(deps: Deps): Promise<boolean> {
  return (await findOrganisation(deps.db.read))?.demo === true;
}
