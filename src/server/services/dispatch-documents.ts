import 'server-only';
import { newId, randomText, type DispatchId, type DocumentId, type RecipientId } from '@/core/base/ids';
import type { Happening } from '@/core/ledger/entry';
import { reaches } from '@/core/policy/powers';
import { termsText } from '@/core/policy/rights';
import type { DispatchInput, DispatchResult } from '@/contracts/dispatch';
import type { Transaction } from '@/server/db/database';
import { dispatchMail } from '@/server/mail/dispatch-mail';
import { countDispatches, findRecipients, insertDispatch, insertRecipients } from '@/server/repositories/dispatch-repository';
import { findDocuments } from '@/server/repositories/document-repository';
import { queueMail } from '@/server/repositories/mail-repository';
import { findOrganisation } from '@/server/repositories/organisation-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { ServiceError } from '@/server/services/errors';
import { record } from '@/server/services/record';

const TOKEN_CHARACTERS = 24;

type Addressee = { readonly id: RecipientId; readonly address: string; readonly name: string; readonly terms: DispatchInput['terms'] };

/** The recipients as rows, known ones kept as they are. */
async function settleRecipients(deps: Deps, tx: Transaction, input: DispatchInput, now: number): Promise<Addressee[]> {
  const wanted = new Map(input.recipients.map((each) => [each.address, each]));
  const termsOf = (address: string): DispatchInput['terms'] => wanted.get(address)?.terms ?? input.terms;
  const known = await findRecipients(tx, [...wanted.keys()]);
  const isKnown = new Set(known.map((each) => each.address));
  const added = [...wanted.values()].filter((each) => !isKnown.has(each.address)).map(({ address, name, organisation }) => ({ id: newId('recipient', deps.random), address, name, organisation, createdAt: now }));
  await insertRecipients(tx, added);
  return [...known, ...added].map(({ id, address, name }) => ({ id, address, name, terms: termsOf(address) }));
}

/** Every document must be there and live: what nobody could open is not sent. */
async function checkDocuments(tx: Transaction, actor: StaffActor, ids: readonly DocumentId[]) {
  const found = await findDocuments(tx, ids);
  if (found.length !== new Set(ids).size) throw new ServiceError('NOT_FOUND', 'One of the documents is no longer there.');
  const foreign = found.find((document) => !reaches(actor, { owner: document.ownerId }));
  if (foreign !== undefined) throw new ServiceError('NOT_ALLOWED', `“${foreign.title}” is somebody else’s document. Ask its owner or an administrator to send it.`);
  const revoked = found.find((document) => document.revokedAt !== null);
  if (revoked !== undefined) throw new ServiceError('INVALID', `“${revoked.title}” is revoked: nobody could open it. Reinstate it or leave it out.`);
  return found;
}

/**
 * Sends documents to recipients: dispatch, grants, links, outbox and ledger in one transaction, so
 * that a crash leaves all of it or none.
 *
 * @throws ServiceError `NOT_FOUND`, `INVALID`, `MAIL_NOT_SET_UP`
 */
export async function dispatchDocuments(deps: Deps, actor: StaffActor, input: DispatchInput): Promise<DispatchResult> {
  const now = deps.clock.now();
  if (deps.mailer === null) throw new ServiceError('MAIL_NOT_SET_UP', 'No mail server is set up. Set MAIL_URL and MAIL_FROM and start again: without them no recipient could prove an address.');
  if ([input.terms, ...input.recipients.flatMap(({ terms }) => (terms == null ? [] : [terms]))].some(({ until }) => until !== null && until <= now)) throw new ServiceError('INVALID', 'An end lies in the past: it could never be opened.');
  const organisation = await findOrganisation(deps.db.read);
  const id = newId('dispatch', deps.random);

  const reference = await deps.db.write(async (tx) => {
    const documents = await checkDocuments(tx, actor, input.documents);
    const people = await settleRecipients(deps, tx, input, now);
    const number = `D-${String((await countDispatches(tx)) + 1).padStart(4, '0')}`;
    const links = people.map((person) => ({ id: newId('link', deps.random), token: randomText(TOKEN_CHARACTERS, deps.random), dispatchId: id, recipientId: person.id, createdAt: now }));
    const grants = people.flatMap((person) =>
      documents.map((document) => ({
        id: newId('grant', deps.random), dispatchId: id, documentId: document.id, recipientId: person.id,
        rights: person.terms.rights, fromAt: person.terms.from, untilAt: person.terms.until, prints: person.terms.rights.includes('print') ? person.terms.prints : null, givenBy: actor.id, givenAt: now,
      })),
    );
    await insertDispatch(tx, { id, reference: number, subject: input.subject, note: input.note, watermark: input.watermark, sentBy: actor.id, sentAt: now }, grants, links);
    await queueMail(tx, people.map((person, i) => {
      const mail = dispatchMail({ senderName: actor.name, organisation: organisation?.name ?? '', zone: organisation?.zone ?? 'UTC', subject: input.subject, note: input.note, titles: documents.map((document) => document.title), from: person.terms.from, until: person.terms.until, link: `${deps.publicUrl}/r/${links[i]?.token ?? ''}`, address: person.address });
      return { id: newId('message', deps.random), dispatchId: id, recipientId: person.id, toAddress: person.address, ...mail, state: 'waiting' as const, nextAttemptAt: now, createdAt: now };
    }));
    await record(deps, tx, ...entries(actor, id, number, now, grants, input));
    return number;
  });
  return { id, reference };
}

function entries(actor: StaffActor, dispatch: DispatchId, reference: string, now: number, grants: readonly { id: `grt_${string}`; documentId: DocumentId; recipientId: RecipientId; rights: DispatchInput['terms']['rights']; fromAt: number | null; untilAt: number | null; prints: number | null }[], input: DispatchInput): Happening[] {
  const by = { kind: 'staff' as const, id: actor.id };
  return [
    { action: 'dispatch.sent', outcome: 'done', actor: by, occurredAt: now, dispatch, details: { reference, delivery: 'reader-link', documents: input.documents.length, recipients: input.recipients.length, watermark: input.watermark }, personal: { text: `${input.subject}\n${input.note}` } },
    ...grants.map((grant): Happening => ({
      action: 'grant.given', outcome: 'done', actor: by, occurredAt: now, dispatch, grant: grant.id, document: grant.documentId, recipient: grant.recipientId,
      details: { terms: termsText({ rights: grant.rights, from: grant.fromAt, until: grant.untilAt, prints: grant.prints }) },
    })),
  ];
}
