import 'server-only';
import { subjects } from '@/server/mail/subjects';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import type { GiveInput, GiveResult, GiveToInput, Lacking } from '@/contracts/lacking';
import { listSavedTerms } from '@/server/repositories/documents/filing-repository';
import { documentsLackedBy, peopleLacking } from '@/server/repositories/access/lacking-repository';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { findPerson, recipientsByIds } from '@/server/repositories/people/people-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { beginningOf } from '@/server/services/policy/manage-defaults';
import { sendDocuments } from '@/server/services/dispatching/send-documents';

/** Rows shown at a time; more are found by searching. */
const SHOWN = 100;

function onceOf({
  revoked,
  expired,
}: {
  readonly revoked: number;
  readonly expired: number;
}): Lacking['rows'][number]['once'] {
  if (revoked === 1) return 'revoked';
  return expired === 1 ? 'expired' : null;
}

/** What somebody does not hold and the caller could give them. @throws ServiceError `NOT_FOUND` */
export async function viewLacking(
  deps: Deps,
  actor: StaffActor,
  { id, q }: { readonly id: RecipientId; readonly q: string },
): Promise<Lacking> {
  if ((await findPerson(deps.db.read, id)) === null) throw new ServiceError('no-person');
  const now = deps.clock.now();
  const { rows, total } = await documentsLackedBy(
    deps.db.read,
    id,
    { text: q, ownedBy: actor.role === 'administrator' ? undefined : actor.id },
    now,
    SHOWN,
  );
  return {
    total,
    now,
    terms: await listSavedTerms(deps.db.read),
    begin: (await beginningOf(deps, [])).terms,
    rows: rows.map(({ id: document, reference, title, marking, ...how }) => ({
      id: document,
      name: title,
      detail: marking === null ? reference : `${reference} · ${marking}`,
      once: onceOf(how),
    })),
  };
}

/**
 * Gives somebody several documents in one act: a dispatch without mail. They are led to it by any
 * link they have, or by the one that stands on its page.
 *
 * @throws ServiceError `NOT_FOUND`, `CONFLICT` where they are blocked; else as for any dispatch
 */
export async function giveLacking(
  deps: Deps,
  actor: StaffActor,
  { id, documents, terms, watermark }: GiveInput,
): Promise<GiveResult> {
  const person = await findPerson(deps.db.read, id);
  if (person?.kind !== 'person') throw new ServiceError('no-person');
  if (person.blocked) throw new ServiceError('recipient-blocked');
  const { reference, waits } = await sendDocuments(deps, actor, {
    documents,
    recipients: [{ address: person.address, name: person.name, organisation: person.organisation }],
    terms,
    subject: subjects.given(person.name === '' ? person.address : person.name),
    note: '',
    watermark,
    delivery: 'by-hand',
  });
  return { reference, given: documents.length, waits };
}

/** Who does not hold a document and could be given it. @throws ServiceError `NOT_FOUND` */
export async function viewUnreached(
  deps: Deps,
  _actor: StaffActor,
  { id, q }: { readonly id: DocumentId; readonly q: string },
): Promise<Lacking> {
  if ((await findDocument(deps.db.read, id)) === null) throw new ServiceError('no-document');
  const now = deps.clock.now();
  const { rows, total } = await peopleLacking(deps.db.read, id, q, now, SHOWN);
  return {
    total,
    now,
    terms: await listSavedTerms(deps.db.read),
    begin: (await beginningOf(deps, [id])).terms,
    rows: rows.map(({ id: person, name, address, organisation, ...how }) => ({
      id: person,
      name: name === '' ? address : name,
      detail: [name === '' ? '' : address, organisation].filter((part) => part !== '').join(' · '),
      once: onceOf(how),
    })),
  };
}

/** Gives a document to several people in one act, likewise. @throws as for any dispatch */
export async function giveTo(
  deps: Deps,
  actor: StaffActor,
  { id, recipients, terms, watermark }: GiveToInput,
): Promise<GiveResult> {
  const [found, people] = await Promise.all([
    findDocument(deps.db.read, id),
    recipientsByIds(deps.db.read, recipients),
  ]);
  if (found === null) throw new ServiceError('no-document');
  if (people.length !== new Set(recipients).size || people.some(({ kind }) => kind !== 'person'))
    throw new ServiceError('people-gone');
  const { reference, waits } = await sendDocuments(deps, actor, {
    documents: [id],
    recipients: people.map(({ address, name, organisation }) => ({ address, name, organisation })),
    terms,
    subject: `${found.document.title}, given`,
    note: '',
    watermark,
    delivery: 'by-hand',
  });
  return { reference, given: people.length, waits };
}
