import 'server-only';
import type { RecipientId } from '@/core/base/ids';
import type { GiveInput, Lacking } from '@/contracts/lacking';
import { listKeptTerms } from '@/server/repositories/filing-repository';
import { documentsLackedBy } from '@/server/repositories/lacking-repository';
import { findPerson } from '@/server/repositories/people-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { dispatchDocuments } from '@/server/services/dispatch-documents';
import { ServiceError } from '@/server/services/errors';

/** Rows shown at a time; more are found by searching. */
const SHOWN = 100;

/** What somebody does not hold and the caller could give them. @throws ServiceError `NOT_FOUND` */
export async function viewLacking(deps: Deps, actor: StaffActor, { id, q }: { readonly id: RecipientId; readonly q: string }): Promise<Lacking> {
  if ((await findPerson(deps.db.read, id)) === null) throw new ServiceError('NOT_FOUND', 'There is no such person.');
  const now = deps.clock.now();
  const { rows, total } = await documentsLackedBy(deps.db.read, id, { text: q, ownedBy: actor.role === 'administrator' ? undefined : actor.id }, now, SHOWN);
  return { total, now, terms: await listKeptTerms(deps.db.read), rows: rows.map(({ revoked, expired, ...row }) => ({ ...row, once: revoked === 1 ? 'revoked' : expired === 1 ? 'expired' : null })) };
}

/**
 * Gives somebody several documents in one act: a dispatch without mail. They are led to it by any
 * link they have, or by the one that stands on its page.
 *
 * @throws ServiceError `NOT_FOUND`, `CONFLICT` where they are blocked; else as for any dispatch
 */
export async function giveLacking(deps: Deps, actor: StaffActor, { id, documents, terms, watermark }: GiveInput): Promise<{ readonly reference: string; readonly given: number }> {
  const person = await findPerson(deps.db.read, id);
  if (person === null) throw new ServiceError('NOT_FOUND', 'There is no such person.');
  if (person.blocked) throw new ServiceError('CONFLICT', 'This person is blocked and could open nothing. Unblock them first.');
  const { reference } = await dispatchDocuments(deps, actor, { documents, recipients: [{ address: person.address, name: person.name, organisation: person.organisation }], terms, subject: `Given to ${person.name === '' ? person.address : person.name}`, note: '', watermark, delivery: 'by-hand' });
  return { reference, given: documents.length };
}
